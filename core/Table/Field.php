<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** What a column of a list can hold. */
enum Field: string
{
    case StudentNumber = 'student_number';
    case FullName = 'full_name';
    case GivenName = 'given_name';
    case FamilyName = 'family_name';
    case BirthDate = 'birth_date';
    case Grade = 'grade';
    case Homeroom = 'homeroom';
    case Section = 'section';
    case Email = 'email';
    case GuardianName = 'guardian_name';
    case GuardianEmail = 'guardian_email';
    case GuardianPhone = 'guardian_phone';
    case Guardian2Name = 'guardian2_name';
    case Guardian2Email = 'guardian2_email';
    case Guardian2Phone = 'guardian2_phone';

    public function label(): string
    {
        return match ($this) {
            self::StudentNumber => 'student number',
            self::FullName => 'full name',
            self::GivenName => 'given name',
            self::FamilyName => 'family name',
            self::BirthDate => 'birth date',
            self::Grade => 'grade',
            self::Homeroom => 'homeroom',
            self::Section => 'section',
            self::Email => 'student e-mail',
            self::GuardianName => 'guardian name',
            self::GuardianEmail => 'guardian e-mail',
            self::GuardianPhone => 'guardian phone',
            self::Guardian2Name => 'second guardian name',
            self::Guardian2Email => 'second guardian e-mail',
            self::Guardian2Phone => 'second guardian phone',
        };
    }

    /**
     * Headings that mean this field, as {@see \Vantrel\Core\Names\NameKey} leaves them. Common practice, no source.
     *
     * @return list<string>
     */
    public function headings(): array
    {
        return match ($this) {
            self::StudentNumber => ['student number', 'student no', 'student id', 'id', 'number', 'no', 'student nr', 'local id', 'sis id', 'pupil number', 'numero', 'numero de estudiante', 'matricula', 'numero etudiant', 'identifier', 'source id', 'sourcedid', 'ma hoc sinh', 'xue hao'],
            self::FullName => ['name', 'full name', 'student', 'student name', 'pupil', 'pupil name', 'child', 'child name', 'names', 'nombre completo', 'estudiante', 'alumno', 'nom complet', 'eleve', 'last first', 'ho ten', 'ho va ten', 'pib', 'xing ming', 'alasm'],
            self::GivenName => ['given name', 'first name', 'first', 'given', 'forename', 'firstname', 'givenname', 'student first name', 'first names', 'given names', 'nombre', 'nombres', 'prenom', 'vorname', 'ten', 'imya', 'ming'],
            self::FamilyName => ['family name', 'last name', 'surname', 'last', 'family', 'lastname', 'familyname', 'student last name', 'apellido', 'apellidos', 'nom', 'nom de famille', 'nachname', 'ho', 'prizvyshche', 'prizvishe', 'xing'],
            self::BirthDate => ['birth date', 'date of birth', 'dob', 'birthdate', 'birthday', 'born', 'fecha de nacimiento', 'nacimiento', 'date de naissance', 'ne le', 'ngay sinh', 'geburtsdatum'],
            self::Grade => ['grade', 'gr', 'grade level', 'year', 'year level', 'year group', 'level', 'grado', 'curso', 'niveau', 'klasse', 'lop', 'klas', 'nian ji'],
            self::Homeroom => ['homeroom', 'home room', 'hr', 'form', 'tutor group', 'registration', 'homeroom section', 'advisory', 'salon', 'aula', 'classe'],
            self::Section => ['section', 'class', 'class section', 'course', 'course section', 'group', 'sections', 'classes', 'clase', 'seccion', 'grupo', 'cours', 'groupe'],
            self::Email => ['email', 'e mail', 'student email', 'student e mail', 'mail', 'email address', 'school email', 'correo', 'courriel', 'correo electronico'],
            self::GuardianName => ['guardian', 'guardian name', 'parent', 'parent name', 'parent guardian', 'mother', 'father', 'guardian 1', 'guardian 1 name', 'parent 1', 'parent 1 name', 'contact', 'contact name', 'carer', 'tutor', 'padre', 'madre', 'responsable', 'parent s', 'primary contact'],
            self::GuardianEmail => ['guardian email', 'guardian e mail', 'parent email', 'parent e mail', 'guardian 1 email', 'guardian 1 e mail', 'parent 1 email', 'contact email', 'mother email', 'father email', 'family email', 'home email', 'carer email', 'guardian mail', 'correo del tutor', 'correo del padre', 'email parent', 'courriel parent'],
            self::GuardianPhone => ['guardian phone', 'parent phone', 'guardian 1 phone', 'parent 1 phone', 'phone', 'telephone', 'mobile', 'contact phone', 'home phone', 'cell', 'telefono', 'guardian mobile', 'guardian tel'],
            self::Guardian2Name => ['guardian 2', 'guardian 2 name', 'second guardian', 'second guardian name', 'parent 2', 'parent 2 name', 'other parent'],
            self::Guardian2Email => ['guardian 2 email', 'guardian 2 e mail', 'second guardian email', 'second guardian e mail', 'parent 2 email', 'parent 2 e mail', 'other parent email'],
            self::Guardian2Phone => ['guardian 2 phone', 'second guardian phone', 'parent 2 phone', 'other parent phone'],
        };
    }
}
