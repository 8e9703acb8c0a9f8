<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/** Columns that hold a part of a name beside the one that holds it: before the family name, after it, a teacher's. */
final class FamilyParts
{
    private const BEFORE =
        '/^(tussenvoegsel|voorvoegsel|surname prefix|family name prefix|last name prefix|' .
        'name particle|particle)$/';

    private const SECOND =
        '/^(apellido materno|segundo apellido|second (last|family) name|second surname|' .
        'maternal (last|family) name|last name 2|nom 2)$/';

    private const AFTER = '/^(suffix|name suffix|suffix name|last name suffix|generation|generational suffix|jr sr)$/';

    private const TEACHER =
        '/^(?:teacher|instructor|lead|staff|adviser|advisor)(?: s)? (last|family|surname|first|' . 'given)(?: name)?$/';

    /** Its place in a teacher's name: 0 the family name, 1 the given name; null where it is no part of one. */
    public static function ofTeacher(string $heading): ?int
    {
        return preg_match(self::TEACHER, NameKey::of($heading), $m) !== 1
            ? null
            : (in_array($m[1], ['first', 'given'], true)
                ? 1
                : 0);
    }

    /** Its place in the family name: -1 before it, 1 second, 2 after; null where the heading is of none of them. */
    public static function place(string $heading): ?int
    {
        $key = NameKey::of((string) preg_replace('/^\s*(?:student|stu|pupil)[\s_]+/i', '', $heading));

        return match (1) {
            preg_match(self::BEFORE, $key) => -1,
            preg_match(self::SECOND, $key) => 1,
            preg_match(self::AFTER, $key) => 2,
            default => null,
        };
    }
}
