<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** What a column of a list can hold. What it means depends on what the rows are ({@see ListKind}). */
enum Field: string
{
    case AccountKey = 'account_key';
    case StudentNumber = 'student_number';
    case FullName = 'full_name';
    case GivenName = 'given_name';
    case MiddleName = 'middle_name';
    case FamilyName = 'family_name';
    case PreferredName = 'preferred_name';
    case StudentName = 'student_name';
    case BirthDate = 'birth_date';
    case Grade = 'grade';
    case Homeroom = 'homeroom';
    case Section = 'section';
    case SectionNumber = 'section_number';
    case Email = 'email';
    case Phone = 'phone';
    case Language = 'language';
    case School = 'school';
    case Teacher = 'teacher';
    case TeacherEmail = 'teacher_email';
    case Role = 'role';
    case BeginsOn = 'begins_on';
    case EndsOn = 'ends_on';
    case Status = 'status';
    case GuardianName = 'guardian_name';
    case GuardianGiven = 'guardian_given';
    case GuardianFamily = 'guardian_family';
    case GuardianEmail = 'guardian_email';
    case GuardianPhone = 'guardian_phone';
    case GuardianRelationship = 'guardian_relationship';
    case Guardian2Name = 'guardian2_name';
    case Guardian2Given = 'guardian2_given';
    case Guardian2Family = 'guardian2_family';
    case Guardian2Email = 'guardian2_email';
    case Guardian2Phone = 'guardian2_phone';
    case Guardian2Relationship = 'guardian2_relationship';
    case Guardian3Name = 'guardian3_name';
    case Guardian3Given = 'guardian3_given';
    case Guardian3Family = 'guardian3_family';
    case Guardian3Email = 'guardian3_email';
    case Guardian3Phone = 'guardian3_phone';
    case Guardian3Relationship = 'guardian3_relationship';
    case Guardian4Name = 'guardian4_name';
    case Guardian4Given = 'guardian4_given';
    case Guardian4Family = 'guardian4_family';
    case Guardian4Email = 'guardian4_email';
    case Guardian4Phone = 'guardian4_phone';
    case Guardian4Relationship = 'guardian4_relationship';

    public function label(): string
    {
        return match ($this) {
            self::AccountKey => 'account key',
            self::StudentNumber => 'student number',
            self::FullName => 'full name',
            self::GivenName => 'given name',
            self::MiddleName => 'middle name',
            self::FamilyName => 'family name',
            self::PreferredName => 'name they go by',
            self::StudentName => 'name of the student',
            self::BirthDate => 'birth date',
            self::Grade => 'grade',
            self::Homeroom => 'homeroom',
            self::Section => 'section',
            self::SectionNumber => 'number of the section',
            self::Email => 'e-mail',
            self::Phone => 'phone',
            self::Language => 'language of the family',
            self::School => 'school',
            self::Teacher => 'teacher',
            self::TeacherEmail => 'teacher e-mail',
            self::Role => 'role',
            self::BeginsOn => 'first day',
            self::EndsOn => 'last day',
            self::Status => 'whether they are still here',
            self::GuardianName => 'guardian name',
            self::GuardianGiven => 'guardian given name',
            self::GuardianFamily => 'guardian family name',
            self::GuardianEmail => 'guardian e-mail',
            self::GuardianPhone => 'guardian phone',
            self::GuardianRelationship => 'guardian relationship',
            self::Guardian2Name => 'second guardian name',
            self::Guardian2Given => 'second guardian given name',
            self::Guardian2Family => 'second guardian family name',
            self::Guardian2Email => 'second guardian e-mail',
            self::Guardian2Phone => 'second guardian phone',
            self::Guardian2Relationship => 'second guardian relationship',
            self::Guardian3Name => 'third guardian name',
            self::Guardian3Given => 'third guardian given name',
            self::Guardian3Family => 'third guardian family name',
            self::Guardian3Email => 'third guardian e-mail',
            self::Guardian3Phone => 'third guardian phone',
            self::Guardian3Relationship => 'third guardian relationship',
            self::Guardian4Name => 'fourth guardian name',
            self::Guardian4Given => 'fourth guardian given name',
            self::Guardian4Family => 'fourth guardian family name',
            self::Guardian4Email => 'fourth guardian e-mail',
            self::Guardian4Phone => 'fourth guardian phone',
            self::Guardian4Relationship => 'fourth guardian relationship',
        };
    }

    /**
     * The fields of the guardians beside a student, one set for each.
     *
     * @return list<array{name: self, given: self, family: self, email: self, phone: self, relationship: self}>
     */
    public static function guardians(): array
    {
        $sets = [];
        foreach (['', '2', '3', '4'] as $n) {
            $sets[] = [
                'name' => self::from("guardian{$n}_name"),
                'given' => self::from("guardian{$n}_given"),
                'family' => self::from("guardian{$n}_family"),
                'email' => self::from("guardian{$n}_email"),
                'phone' => self::from("guardian{$n}_phone"),
                'relationship' => self::from("guardian{$n}_relationship"),
            ];
        }

        return $sets;
    }
}
