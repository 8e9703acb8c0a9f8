<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** What the rows of a list are. */
enum ListKind: string
{
    case Students = 'students';
    case Guardians = 'guardians';
    case Enrollments = 'enrollments';
    case Staff = 'staff';
    case Sections = 'sections';

    public function label(): string
    {
        return match ($this) {
            self::Students => 'a student in each row',
            self::Guardians => 'a guardian in each row',
            self::Enrollments => 'an enrollment in each row',
            self::Staff => 'a member of staff in each row',
            self::Sections => 'a section in each row',
        };
    }

    /**
     * From what the columns are, what the sheet or file is called, and what the column of names is called.
     *
     * @param  list<Field>  $fields
     * @param  bool  $students whether headings speak of students: then no title makes staff of them
     */
    public static function of(array $fields, string $title, string $nameHeading = '', bool $students = false): self
    {
        $has = fn(Field ...$some): bool => array_intersect(
            array_map(fn(Field $f): string => $f->value, $some),
            array_map(fn(Field $f): string => $f->value, $fields),
        ) !== [];
        $named = $has(Field::FullName, Field::GivenName);
        $about = $has(Field::Grade, Field::BirthDate, Field::Homeroom);
        $ofStaff = fn(string $words): bool => preg_match(
            '/\b(staff|teachers?|instructors?|educators?|faculty|employees?|personal|profesor(?:es)?|' .
                'docentes?|maestr[oa]s?|enseignants?|professeurs?|lehrer|personnel)\b/i',
            $words,
        ) === 1;
        $guardian = $has(Field::GuardianName, Field::GuardianGiven, Field::GuardianEmail, Field::GuardianPhone);

        return match (true) {
            $named && $has(Field::StudentName) => self::Guardians,
            // A guardian's own row: a name, an address, and the number of the child it belongs to.
            $named &&
                $has(Field::GuardianRelationship) &&
                !$has(Field::GuardianName, Field::GuardianGiven, Field::GuardianEmail) &&
                !$about
                => self::Guardians,
            !$named && $guardian && $has(Field::StudentNumber, Field::StudentName, Field::AccountKey)
                => self::Guardians,
            !$named && $has(Field::StudentName) && $has(Field::Section) => self::Enrollments,
            !$named &&
                $has(Field::Section, Field::Homeroom) &&
                $has(Field::StudentNumber, Field::Email) &&
                (!$has(Field::Teacher, Field::TeacherEmail) || ($students && $has(Field::StudentNumber)))
                => self::Enrollments,
            !$named && $has(Field::Section, Field::Homeroom) && !$has(Field::FamilyName) => self::Sections,
            $named && $has(Field::Role) && !$about && !$guardian && !$students => self::Staff,
            $named && $ofStaff($title) && !$guardian && !$students && !$has(Field::BirthDate) => self::Staff,
            $named && $ofStaff($nameHeading) && !$guardian && !$has(Field::Grade, Field::BirthDate) => self::Staff,
            default => self::Students,
        };
    }
}
