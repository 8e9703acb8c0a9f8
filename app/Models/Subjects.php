<?php

declare(strict_types=1);

namespace App\Models;

use stdClass;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Records\AddressState;

/** Students of the Roll as the matcher sees them. */
final class Subjects
{
    /** Columns of people that {@see of()} reads. */
    public const COLUMNS = [
        'id',
        'given_name',
        'family_name',
        'birth_date',
        'number',
        'email',
        'email_state',
        'grade',
        'school_id',
    ];

    /**
     * @param  stdClass  $row with the {@see COLUMNS}
     * @param  list<string>  $contacts
     * @param  list<string>  $guardians
     * @param  list<string>  $sections
     */
    public static function of(stdClass $row, array $contacts = [], array $guardians = [], array $sections = []): Subject
    {
        return new Subject(
            $row->id,
            $row->given_name,
            $row->family_name,
            (string) $row->birth_date,
            (string) $row->number,
            (string) $row->email,
            (string) $row->grade,
            $row->school_id,
            $contacts,
            $guardians,
            $sections,
            $row->email_state !== AddressState::Confirmed->value,
        );
    }
}
