<?php

declare(strict_types=1);

namespace App\Intake;

use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\SectionLine;
use Vantrel\Core\Intake\StaffLine;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Table\ListKind;

/** What a row was understood to say, after repairs; what it does not say is left out. */
final class ReadRow
{
    /** @return array<string, array<string, mixed>> by `sheet#row` */
    public static function all(BookReader $book): array
    {
        $kinds = [];
        foreach ($book->layouts as $i => $layout) {
            $kinds[BookReader::label($book->sheets, $i)] = $layout->kind;
        }
        $read = [];
        foreach ($book->contents->students as $line) {
            $kind = $kinds[$line->sheet] ?? ListKind::Students;
            $read["$line->sheet#$line->number"] = [
                'kind' => match ($kind) {
                    ListKind::Guardians => 'guardian',
                    ListKind::Enrollments => 'enrollment',
                    default => 'student',
                },
                ...self::student($line),
            ];
        }
        foreach ($book->contents->staff as $line) {
            $read["$line->sheet#$line->number"] = ['kind' => 'staff', ...self::staff($line)];
        }
        foreach ($book->contents->sections as $line) {
            $read["$line->sheet#$line->number"] = ['kind' => 'section', ...self::section($line)];
        }

        return $read;
    }

    /** @return array<string, mixed> */
    private static function student(StudentLine $line): array
    {
        return self::said([
            ...self::name($line->name),
            'preferred_name' => $line->preferred,
            'student_number' => $line->studentNumber,
            'birth_date' => $line->birthDate,
            'grade' => $line->grade,
            'email' => $line->email,
            'homeroom' => $line->homeroom,
            'sections' => $line->sections,
            'begins_on' => $line->beginsOn,
            'ends_on' => $line->endsOn,
            'language' => $line->language,
            'guardians' => array_map(
                fn(GuardianLine $g): array => self::said([
                    ...self::name($g->name),
                    'email' => $g->email,
                    'phone' => $g->phone,
                    'relationship' => $g->relationship,
                ]),
                $line->guardians,
            ),
        ]);
    }

    /** @return array<string, mixed> */
    private static function staff(StaffLine $line): array
    {
        return self::said([
            ...self::name($line->name),
            'email' => $line->email,
            'phone' => $line->phone,
            'role' => $line->role,
            'sections' => $line->sections,
        ]);
    }

    /** @return array<string, mixed> */
    private static function section(SectionLine $line): array
    {
        return self::said([
            'name' => $line->name,
            'homeroom' => $line->homeroom,
            'grade' => $line->grade,
            'teacher' => $line->teacher->full(),
            'teacher_email' => $line->teacherEmail,
        ]);
    }

    /** @return array<string, string> */
    private static function name(PersonName $name): array
    {
        return ['given_name' => $name->given, 'family_name' => $name->family];
    }

    /**
     * @param  array<string, mixed>  $values
     * @return array<string, mixed> without those the row is silent about
     */
    private static function said(array $values): array
    {
        return array_filter($values, fn(mixed $v): bool => $v !== '' && $v !== [] && $v !== null);
    }
}
