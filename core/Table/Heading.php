<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use Vantrel\Core\Names\NameKey;

/**
 * What a heading says its column holds, in the languages of the product: English, Spanish, French, Arabic, Vietnamese,
 * Ukrainian, Chinese, and some German and Portuguese. Common practice, no source; from memory.
 */
final class Heading
{
    /** From this score on, a heading is known. */
    public const KNOWN = 0.8;

    /** Whole headings, once words that say whose it is are taken off. */
    // prettier-ignore
    private const PHRASES = [
        'account_key' => ['account key', 'account key do not change'],
        'student_number' => [
            'number', 'no', 'nr', 'num', 'id', 'id number', 'id no', 'local id', 'local number', 'sis id', 'sourcedid',
            'sourced id', 'source id', 'identifier', 'state id', 'permanent id', 'registration number',
            'admission number', 'roll number', 'roll no', 'numero', 'numero de estudiante', 'numero de alumno',
            'matricula', 'codigo', 'numero etudiant', 'numero d eleve', 'matricule', 'identifiant', 'ma hoc sinh',
            'ma so', 'mshs', 'номер', 'номер учня', '学号', '學號', 'رقم الطالب', 'الرقم', 'schulernummer',
            'schuelernummer', 'número',
        ],
        'full_name' => [
            'name', 'full name', 'names', 'fullname', 'display name', 'last first', 'last name first name',
            'first last', 'first name last name', 'name last first', 'surname first name', 'legal name',
            'nombre completo', 'nombre y apellidos', 'apellidos y nombre', 'apellidos y nombres', 'nom complet',
            'nom et prenom', 'nom prenom', 'prenom et nom', 'ho ten', 'ho va ten', 'піб', 'прізвище та імʼя',
            'прізвище імʼя', '姓名', 'الاسم', 'الاسم الكامل', 'اسم الطالب', 'vor und nachname', 'nome completo', 'nome',
        ],
        'given_name' => [
            'given name', 'given names', 'given', 'first name', 'first names', 'first', 'firstname', 'givenname',
            'fname', 'forename', 'forenames', 'christian name', 'legal first name', 'nombre', 'nombres',
            'nombre de pila', 'prenom', 'prenoms', 'vorname', 'ten', 'імʼя', '名', '名字', 'الاسم الأول', 'primeiro nome',
        ],
        'middle_name' => [
            'middle name', 'middle names', 'middle', 'middlename', 'mi', 'middle initial', 'second name',
            'segundo nombre', 'deuxieme prenom', 'ten dem', 'по батькові', 'اسم الأب',
        ],
        'family_name' => [
            'family name', 'family names', 'family', 'last name', 'last names', 'last', 'last initial',
            'last name initial', 'surname initial', 'initial', 'lastname', 'familyname', 'lname', 'surname',
            'surnames', 'legal last name', 'apellido', 'apellidos', 'primer apellido', 'nom', 'nom de famille',
            'nachname', 'familienname', 'ho', 'прізвище', '姓', '姓氏', 'اسم العائلة', 'اللقب', 'sobrenome',
        ],
        'birth_date' => [
            'birth date', 'birthdate', 'date of birth', 'dob', 'd o b', 'birthday', 'born', 'birth', 'born on',
            'fecha de nacimiento', 'fecha nacimiento', 'nacimiento', 'date de naissance', 'ne le', 'naissance',
            'ngay sinh', 'geburtsdatum', 'geboren', 'дата народження', '出生日期', '生日', 'تاريخ الميلاد',
            'data de nascimento',
        ],
        'grade' => [
            'grade', 'grades', 'gr', 'grade level', 'gradelevel', 'grade lvl', 'year', 'year level', 'year group',
            'level', 'grado', 'curso', 'nivel', 'niveau', 'annee', 'klasse', 'klassenstufe', 'lop', 'khoi', 'клас',
            '年级', '年級', 'الصف', 'ano',
        ],
        'homeroom' => [
            'homeroom', 'home room', 'room', 'classroom', 'class room', 'hr', 'form', 'form group', 'tutor group',
            'registration group', 'registration', 'homeroom section', 'advisory', 'advisory group', 'home class',
            'base class', 'salon', 'aula', 'classe', 'salle', 'lop chu nhiem', '班级', '班級', 'الفصل',
        ],
        'section' => [
            'section', 'sections', 'class', 'classes', 'class section', 'class name', 'section name', 'section title',
            'course', 'course section', 'course name', 'course title', 'group', 'groups', 'period class', 'clase',
            'clases', 'seccion', 'asignatura', 'grupo', 'cours', 'groupe', 'matiere', 'group name', 'lop hoc',
            'предмет', 'група', '课程', '班', 'الشعبة', 'المادة',
        ],
        'email' => [
            'email', 'e mail', 'mail', 'email address', 'e mail address', 'mail address', 'school email',
            'school e mail', 'emails', 'login email', 'correo', 'correo electronico', 'courriel', 'adresse e mail',
            'adresse electronique', 'mel', 'thu dien tu', 'електронна пошта', 'пошта', 'ел пошта', '电子邮件', '邮箱',
            'البريد الإلكتروني', 'البريد',
        ],
        'phone' => [
            'phone', 'phones', 'phone number', 'phone no', 'telephone', 'telephone number', 'tel', 'mobile',
            'mobile phone', 'mobile number', 'cell', 'cell phone', 'cellphone', 'home phone', 'contact number',
            'telefono', 'movil', 'celular', 'telephone portable', 'portable', 'telefon', 'handy', 'so dien thoai',
            'dien thoai', 'телефон', '电话', '手机', 'الهاتف', 'رقم الهاتف', 'telefone',
        ],
        'relationship' => [
            'relationship', 'relation', 'relationship to student', 'relation to student', 'relationship to child',
            'rel', 'kinship', 'parentesco', 'relacion', 'lien', 'lien de parente', 'quan he', 'ким доводиться', '关系',
            'صلة القرابة',
        ],
        'school' => [
            'school', 'school name', 'school code', 'campus', 'building', 'escuela', 'colegio', 'centro', 'ecole',
            'etablissement', 'truong', 'школа', '学校', 'المدرسة', 'schule',
        ],
        'teacher' => [
            'teacher', 'teachers', 'teacher name', 'homeroom teacher', 'class teacher', 'form tutor', 'lead teacher',
            'lead', 'instructor', 'educator', 'profesor', 'profesora', 'docente', 'maestro', 'maestra', 'enseignant',
            'professeur', 'giao vien', 'вчитель', 'учитель', '老师', '教师', 'المعلم', 'lehrer',
        ],
        'teacher_email' => [
            'teacher email', 'teacher e mail', 'teachers email', 'teacher mail', 'lead email', 'lead e mail',
            'instructor email', 'lead teacher email', 'lead teacher e mail', 'correo del profesor',
            'courriel enseignant',
        ],
        'role' => [
            'role', 'role in section', 'position', 'title', 'job title', 'job', 'function', 'staff type', 'user type',
            'rol', 'cargo', 'puesto', 'fonction', 'chuc vu', 'посада', '职务', 'الوظيفة',
        ],
        'begins_on' => [
            'begin date', 'begins', 'begins on', 'first day', 'start date', 'start', 'starts', 'starts on',
            'enroll date', 'enrolled on', 'entry date', 'from', 'fecha de inicio', 'date de debut',
        ],
        'ends_on' => [
            'end date', 'ends', 'ends on', 'last day', 'exit date', 'end', 'until', 'to', 'withdrawn on',
            'fecha de fin', 'date de fin',
        ],
    ];

    /** Words that make a column a guardian's; the number is which of two parents it is by custom of such lists. */
    // prettier-ignore
    private const GUARDIAN = [
        'guardian' => 0, 'guardians' => 0, 'parent' => 0, 'parents' => 0, 'carer' => 0, 'caregiver' => 0,
        'contact' => 0, 'mother' => 1, 'mom' => 1, 'mum' => 1, 'father' => 2, 'dad' => 2, 'tutor' => 0, 'tutora' => 0,
        'acudiente' => 0, 'apoderado' => 0, 'responsable' => 0, 'representante' => 0, 'madre' => 1, 'mama' => 1,
        'padre' => 2, 'papa' => 2, 'padres' => 0, 'tuteur' => 0, 'mere' => 1, 'pere' => 2,
        'erziehungsberechtigte' => 0, 'eltern' => 0, 'mutter' => 1, 'vater' => 2, 'phuhuynh' => 0, 'opikun' => 0,
        'batki' => 0, 'mati' => 1, 'batko' => 2, 'jiazhang' => 0, 'family contact' => 0,
    ];

    // prettier-ignore
    private const STUDENT = [
        'student', 'students', 'pupil', 'pupils', 'child', 'childs', 'children', 'learner', 'estudiante', 'alumno',
        'alumna', 'alumnos', 'nino', 'hijo', 'eleve', 'enfant', 'schuler', 'schueler', 'kind', 'hocsinh', 'ucen',
        'uchen', 'xuesheng',
    ];

    private const STAFF = ['staff', 'teacher', 'teachers', 'employee', 'lead', 'instructor', 'profesor', 'enseignant'];

    // prettier-ignore
    private const ORDINALS = [
        '1' => 1, '2' => 2, '3' => 3, '4' => 4, 'first' => 1, 'second' => 2, 'third' => 3, 'fourth' => 4,
        'primary' => 1, 'secondary' => 2, 'other' => 2, 'alternate' => 2, 'additional' => 2, 'one' => 1, 'two' => 2,
        'i' => 1, 'ii' => 2, 'a' => 1, 'b' => 2,
    ];

    // prettier-ignore
    private const FILLERS = [
        'the', 'of', 's', 'del', 'de', 'la', 'el', 'du', 'l', 'd', 'for', 'legal', 'current', 'required', 'optional',
        'info', 'information', 'new', 'their', 'your',
    ];

    /** Headings of columns that nothing is read from, some of them this product's own. */
    // prettier-ignore
    private const LEFT_OUT = [
        'what to do', 'row in the list', 'user name', 'username', 'login', 'passphrase', 'password', 'reason', 'notes',
        'note', 'comment', 'comments', 'remarks', 'status', 'preferred name', 'nickname', 'known as', 'gender', 'sex',
        'address', 'street', 'city', 'zip', 'postcode', 'allergies', 'medical', 'bus', 'locker', 'photo', 'ethnicity',
        'language', 'home language', 'signature', 'present', 'attendance', 'sexo', 'genero', 'direccion', 'adresse',
    ];

    /** @var array<string, array<string, float>> */
    private static array $known = [];

    /** @var array<string, string>|null plain phrase to field or attribute */
    private static ?array $phrases = null;

    /** @var array<int, list<array{string, string}>> */
    private static array $byLength = [];

    /**
     * @return array<string, float> field value to how surely the heading says so, 0.8 to 1; empty where it says nothing
     *     known
     */
    public static function read(string $heading): array
    {
        $key = NameKey::of((string) preg_replace('/([a-z])([A-Z])/', '$1 $2', $heading));
        if (count(self::$known) > 5000) {
            self::$known = [];
        }

        return self::$known[$key] ??= $key === '' || strlen($key) > 60 ? [] : self::work($key);
    }

    /** The relationship that a heading itself states: "Mother e-mail". */
    public static function relationship(string $heading): string
    {
        foreach (explode(' ', NameKey::of($heading)) as $word) {
            $n = self::GUARDIAN[$word] ?? (self::GUARDIAN[rtrim($word, 's')] ?? 0);
            if ($n > 0) {
                return $n === 1 ? 'mother' : 'father';
            }
        }

        return '';
    }

    /** Whether the heading is of a column that nothing is read from. */
    public static function isLeftOut(string $heading): bool
    {
        return in_array(NameKey::of($heading), self::LEFT_OUT, true);
    }

    /** @return array<string, float> */
    private static function work(string $key): array
    {
        $words = explode(
            ' ',
            str_replace(
                ['phu huynh', 'jia zhang', 'hoc sinh', 'xue sheng', 'wly alamr', 'next of kin'],
                ['phuhuynh', 'jiazhang', 'hocsinh', 'xuesheng', 'guardian', 'guardian'],
                $key,
            ),
        );
        if (
            array_intersect($words, [
                'emergency',
                'doctor',
                'bus',
                'password',
                'counselor',
                'counsellor',
                'address',
                'street',
                'preferred',
                'nickname',
            ]) !== [] &&
            !str_contains($key, 'mail')
        ) {
            return [];
        }
        // "Parent's phone", "e-mail (guardian 2)": what is left when whose it is has been taken off says what it is.
        $guardian = $student = $staff = false;
        $n = 0;
        $rest = [];
        foreach ($words as $word) {
            $plain = rtrim($word, '1234');
            // "Mother's phone" has lost its apostrophe by now.
            $plain = isset(self::GUARDIAN[$plain]) ? $plain : (string) preg_replace('/s$/', '', $plain);
            if (
                isset(self::GUARDIAN[$plain]) &&
                !($plain === 'contact' && in_array('number', $words, true) && !$guardian)
            ) {
                $guardian = true;
                $n = max($n, self::GUARDIAN[$plain], $plain === $word ? 0 : (int) substr($word, -1));
            } elseif (in_array($word, self::STUDENT, true)) {
                $student = true;
            } elseif (in_array($word, self::STAFF, true)) {
                $staff = true;
                $rest[] = $word;
            } else {
                $rest[] = $word;
            }
        }
        if ($guardian) {
            $phrase = [];
            foreach ($rest as $i => $word) {
                if (isset(self::ORDINALS[$word]) && !($word === 'first' && ($rest[$i + 1] ?? '') === 'name')) {
                    $n = max($n, self::ORDINALS[$word]);
                } elseif (!in_array($word, self::FILLERS, true)) {
                    $phrase[] = preg_replace('/^(name|mail|phone)[1-4]$/', '$1', $word);
                }
            }

            return self::guardian(implode(' ', $phrase), max(1, $n), $student);
        }
        $rest = array_values(
            array_filter($rest, fn(string $w): bool => !in_array($w, self::FILLERS, true) || count($rest) === 1),
        );
        [$what, $score] =
            self::phrase(implode(' ', $rest)) ??
            (self::phrase($key) ?? ($rest === [] ? ['full_name', 1.0] : ['', 0.0]));
        if ($what === '' || $what === 'relationship') {
            return $what === 'relationship' ? ['guardian_relationship' => $score] : [];
        }
        $scores = [$what => $score];
        // "Student name" beside a plain "Name" is the child of a guardian's row; "phone" beside a student is the
        // guardian's.
        match ($what) {
            'full_name' => ($scores += $student
                ? ['student_name' => $score * 0.95]
                : ($key === 'name'
                    ? ['family_name' => 0.8]
                    : [])),
            // "Nombre" and "nom" are a part of the name where the other part stands beside it, and the whole of it
            // otherwise.
            'given_name' => in_array('nombre', $rest, true) ? ($scores['full_name'] = $score * 0.9) : null,
            'family_name' => $key === 'nom' ? ($scores['full_name'] = $score * 0.85) : null,
            'phone' => ($scores += $student ? [] : ['guardian_phone' => $score * 0.9]),
            'homeroom' => ($scores['section'] = $score * 0.85),
            'section' => ($scores['homeroom'] = $score * 0.82),
            'teacher' => $staff && in_array($key, ['teacher name', 'staff name', 'teacher'], true)
                ? ($scores['full_name'] = $score * 0.5)
                : null,
            'teacher_email' => ($scores['email'] = $score * 0.5),
            default => null,
        };
        if (
            $staff &&
            in_array($what, ['given_name', 'family_name'], true) &&
            !in_array('staff', explode(' ', $key), true)
        ) {
            return ['teacher' => 0.8];
        }

        return $scores;
    }

    /** @return array<string, float> */
    private static function guardian(string $phrase, int $n, bool $student): array
    {
        $prefix = 'guardian' . ($n > 1 ? min(4, $n) : '');
        [$what, $score] = $phrase === '' ? ['full_name', 1.0] : self::phrase($phrase) ?? ['', 0.0];
        $attribute = match ($what) {
            'full_name' => 'name',
            'given_name' => 'given',
            'family_name' => 'family',
            'email' => 'email',
            'phone' => 'phone',
            'student_number' => $phrase === 'number' ? 'phone' : null,
            'relationship' => 'relationship',
            default => null,
        };
        if ($attribute === null) {
            return [];
        }
        $scores = ["{$prefix}_$attribute" => $score];
        // "Tutor" is a guardian in Spanish and a teacher elsewhere; the first of two parents may stand second.
        if ($n < 2) {
            $scores["guardian2_$attribute"] = $score * 0.7;
        }
        if ($student && $attribute === 'name') {
            return [];
        }

        return $scores;
    }

    /** @return array{string, float}|null */
    private static function phrase(string $key): ?array
    {
        if (self::$phrases === null) {
            self::$phrases = [];
            foreach (self::PHRASES as $what => $phrases) {
                foreach ($phrases as $phrase) {
                    $plain = NameKey::of($phrase);
                    self::$phrases[$plain] ??= $what;
                    self::$byLength[strlen($plain)][] = [$plain, $what];
                }
            }
        }
        if ($key === '') {
            return null;
        }
        if (isset(self::$phrases[$key])) {
            return [self::$phrases[$key], 1.0];
        }
        $joined = str_replace(' ', '', $key);
        if (isset(self::$phrases[$joined])) {
            return [self::$phrases[$joined], 1.0];
        }
        $length = strlen($key);
        $slips = $length >= 8 ? 2 : ($length >= 5 ? 1 : 0);
        for ($l = $length - $slips; $slips > 0 && $l <= $length + $slips; $l++) {
            foreach (self::$byLength[$l] ?? [] as [$phrase, $what]) {
                if ($phrase[0] === $key[0] && levenshtein($key, $phrase) <= $slips) {
                    return [$what, 0.85];
                }
            }
        }

        return null;
    }
}
