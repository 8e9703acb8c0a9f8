<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;

/**
 * What lists call the roles of staff in a section. Common practice, no source; OneRoster 1.2 has only teacher, aide and
 * proctor.
 */
final class StaffRoles
{
    // prettier-ignore
    private const WORDS = [
        'lead' => [
            'lead', 'teacher', 'lead teacher', 'primary', 'primary teacher', 'class teacher', 'homeroom teacher',
            'instructor', 'profesor', 'profesora', 'maestra', 'maestro', 'docente', 'enseignant', 'enseignante',
            'professeur', 'vchitel', 'lao shi', 'giao vien',
        ],
        'co_teacher' => ['co teacher', 'coteacher', 'co lead', 'second teacher', 'support teacher'],
        'assistant' => [
            'assistant', 'aide', 'teaching assistant', 'ta', 'paraprofessional', 'para', 'volunteer',
            'student teacher', 'proctor', 'asistente', 'auxiliar', 'assistante',
        ],
    ];

    // prettier-ignore
    private const STUDENTS = [
        'student', 'students', 'pupil', 'learner', 'estudiante', 'alumno', 'alumna', 'eleve', 'schuler', 'schuelerin',
        'schulerin', 'hoc sinh', 'uchen', 'uchenytsya', 'xue sheng',
    ];

    // prettier-ignore
    private const GUARDIANS = [
        'parent', 'guardian', 'parent guardian', 'mother', 'father', 'family', 'padre', 'madre', 'tutor legal', 'eltern',
        'parents', 'guardians',
    ];

    public static function isStudent(string $cell): bool
    {
        return in_array(NameKey::of($cell), self::STUDENTS, true);
    }

    public static function isGuardian(string $cell): bool
    {
        return in_array(NameKey::of($cell), self::GUARDIANS, true);
    }

    /** lead, co_teacher or assistant; null where the word is none of staff ("student"). */
    public static function read(string $cell): ?string
    {
        $key = NameKey::of($cell);
        foreach (self::WORDS as $role => $words) {
            if (in_array($key, $words, true)) {
                return $role;
            }
        }

        return null;
    }
}
