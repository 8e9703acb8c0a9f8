<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use Vantrel\Core\Names\NameKey;

/** What a list says of whether somebody is still at the school. Common practice, no source; words from memory. */
enum StudentStatus
{
    case Here;
    case Gone;

    /** Headings of columns that say it in words. */
    // prettier-ignore
    private const HEADINGS = [
        'action', 'add drop', 'add or drop', 'change type', 'type of change', 'enrollment action',
        'status', 'student status', 'enrollment status', 'enrolment status', 'enroll status', 'registration status',
        'current status', 'enr status', 'enr stat', 'enrl status', 'enroll stat', 'stat', 'stu status', 'enrollment stat', 'estado', 'estatus', 'estado del alumno', 'estado de matricula', 'statut', 'statut de l eleve',
        'schulerstatus', 'schuelerstatus', 'trang thai', 'stan', 'статус', '状态', 'الحالة',
    ];

    /** Headings that a yes answers: true where yes means that they are here. */
    private const ASKING = [
        'active' => true,
        'is active' => true,
        'enrolled' => true,
        'currently enrolled' => true,
        'activo' => true,
        'aktiv' => true,
        'withdrawn' => false,
        'inactive' => false,
        'left' => false,
        'left school' => false,
        'exited' => false,
        'dropped' => false,
        'no show' => false,
    ];

    // prettier-ignore
    private const HERE = [
        'active', 'a', 'enrolled', 'current', 'continuing', 'registered', 'returning', 'new', 'present', 'attending',
        'activo', 'activa', 'inscrito', 'inscrita', 'matriculado', 'matriculada', 'actif', 'active', 'inscrit',
        'inscrite', 'aktiv', 'angemeldet', 'dang hoc', 'navchayetsya', 'zai du', 're enrolled', 'admitted', 'add', 'added', 'enroll', 'enrol', 'alta',
    ];

    private const GONE =
        '/^(?:w|wd|w d|i|ns|t o|inactive|withdr[ae]wn?|withdrawal|exit(?:ed)?|left|leaving|leaver|departed|moved|' .
        'dropped|drop|remove[d]?|delete[d]?|withdraw|no show|noshow|did not (?:return|attend|arrive)|' .
        'not (?:enrolled|returning|attending)|' .
        'unenrolled|disenrolled|deenrolled|de enrolled|graduate[d]?|alumn[ia]|expelled|deceased|transfer(?:red)?|' .
        'transferred out|transfer out|' .
        'inactiv[oa]|baja|retirad[oa]|trasladad[oa]|egresad[oa]|parti[e]?|radie[e]?|inactif|inactive|sorti[e]?|' .
        'abgemeldet|ausgetreten|inaktiv|weggezogen|thoi hoc|chuyen truong|vybuv|vybula|tui xue|zhuan xue)\b/';

    public static function isHeading(string $heading): bool
    {
        $key = NameKey::of($heading);

        return in_array($key, self::HEADINGS, true) || isset(self::ASKING[$key]);
    }

    /** Whether a yes under the heading, or a date, means that somebody has left. */
    public static function asksForLeaving(string $heading): bool
    {
        return (self::ASKING[NameKey::of($heading)] ?? true) === false;
    }

    /** Whether a cell says yes or no; null where it says something else. */
    public static function yes(string $cell): ?bool
    {
        $key = NameKey::of($cell);

        return match (true) {
            in_array($key, ['y', 'yes', 'true', '1', 'x', 'si', 'oui', 'ja'], true) => true,
            in_array($key, ['n', 'no', 'false', '0', 'non', 'nein'], true) => false,
            default => null,
        };
    }

    /** Null where the word is none we know: those are said, and taken for somebody who is here. */
    public static function read(string $cell, string $heading): ?self
    {
        $key = NameKey::of($cell);
        $yes = self::yes($cell);
        $asks = self::ASKING[NameKey::of($heading)] ?? null;

        return match (true) {
            $asks !== null && $yes !== null => $asks === $yes ? self::Here : self::Gone,
            in_array($key, self::HERE, true) => self::Here,
            preg_match(self::GONE, $key) === 1 => self::Gone,
            default => null,
        };
    }
}
