<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/**
 * The words of {@see Heading}, in the languages of the product: English, Spanish, French, Arabic, Vietnamese,
 * Ukrainian, Chinese, and some German and Portuguese. Common practice, no source; from memory.
 */
final class HeadingWords
{
    /** Whole headings, once words that say whose it is are taken off. */
    // prettier-ignore
    public const PHRASES = [
        'account_key' => ['account key', 'account key do not change'],
        'student_number' => [
            'id number local', 'school id', 'unique id', 'number', 'no', 'nr', 'num', 'id', 'id number', 'id no',
            'local id', 'local number', 'sis id', 'sourcedid',
            'sourced id', 'source id', 'identifier', 'state id', 'permanent id', 'registration number',
            'admission number', 'admission no', 'adm no', 'adm number', 'reg no', 'enrollment number',
            'index number', 'upn', 'lrn', 'roll number', 'roll no', 'numero', 'numero de estudiante',
            'numero de alumno',
            'matricula', 'codigo', 'numero etudiant', 'numero d eleve', 'matricule', 'identifiant', 'ma hoc sinh',
            'ma so', 'mshs', 'номер', 'номер учня', '学号', '學號', 'رقم الطالب', 'الرقم', 'schulernummer',
            'schuelernummer', 'número',
            'leerlingnummer', 'codice', 'nr ucznia', 'ogrenci no', 'okul no', 'numar matricol', 'elevnummer', '학번',
            '学籍番号', '学生番号', 'unique pupil',
            'stu no', 'std id',
        ],
        'full_name' => [
            'name', 'full name', 'staff name', 'staff member', 'employee name', 'names', 'fullname', 'display name',
            'last first', 'last name first name',
            'first last', 'first name last name', 'name last first', 'surname first name', 'legal name',
            'nombre completo', 'nombre y apellidos', 'apellidos y nombre', 'apellidos y nombres', 'nom complet',
            'nom et prenom', 'nom prenom', 'prenom et nom', 'ho ten', 'ho va ten', 'піб', 'прізвище та імʼя',
            'прізвище імʼя', '姓名', 'الاسم', 'الاسم الكامل', 'اسم الطالب', 'vor und nachname', 'nev', 'teljes nev',
            'neve', 'imie i nazwisko', 'nome completo', 'nome',
            'naam', 'volledige naam', 'cognome e nome', 'nome e cognome', 'nazwisko i imie', 'imie nazwisko',
            'navn', 'namn', 'nimi', 'ad soyad', 'adi soyadi', 'nume si prenume', 'jmeno a prijmeni', 'фио',
            'имя и фамилия', 'pangalan', '이름', '성명', '氏名', '名前',
        ],
        'given_name' => [
            'given name', 'given names', 'given', 'first name', 'first names', 'first', 'firstname', 'givenname',
            'fname', 'forename', 'forenames', 'other names', 'other name', 'christian name', 'legal first name',
            'nombre', 'nombres',
            'nombre de pila', 'prenom', 'prenoms', 'vorname', 'ten', 'імʼя', '名', '名字', 'الاسم الأول', 'primeiro nome',
            'nome', 'nome proprio', 'roepnaam', 'voornaam', 'voornamen', 'imie', 'imiona', 'fornavn', 'fornamn',
            'etunimi', 'ad', 'adi', 'prenume', 'jmeno', 'имя', 'prenom usuel', 'keresztnev', 'utonev',
            'fst name', 'f name', 'שם פרטי',
        ],
        'middle_name' => [
            'middle name', 'middle names', 'middle', 'middlename', 'mi', 'middle initial', 'second name',
            'segundo nombre', 'deuxieme prenom', 'ten dem', 'по батькові', 'отчество', 'اسم الأب',
        ],
        'family_name' => [
            'family name', 'family names', 'family', 'household', 'household name', 'last name', 'last names',
            'last', 'last initial',
            'last name initial', 'surname initial', 'initial', 'lastname', 'familyname', 'lname', 'surname',
            'surnames', 'legal last name', 'apellido', 'apellidos', 'primer apellido', 'nom', 'nom de famille',
            'nachname', 'familienname', 'ho', 'прізвище', '姓', '姓氏', 'اسم العائلة', 'اللقب', 'sobrenome',
            'cognome', 'achternaam', 'familienaam', 'nazwisko', 'efternavn', 'efternamn', 'etternavn', 'sukunimi',
            'soyad', 'soyadi', 'nume', 'nume de familie', 'prijmeni', 'фамилия', 'apelyido', 'vezeteknev',
            'csaladnev', 'siyati', 'שם משפחה',
            'l name', 'apellido paterno', 'primer apellido', 'primer nombre de familia',
        ],
        'birth_date' => [
            'birth date', 'birthdate', 'date of birth', 'dob', 'd o b', 'birthday', 'born', 'birth', 'born on',
            'fecha de nacimiento', 'fecha nacimiento', 'nacimiento', 'date de naissance', 'ne le', 'naissance',
            'ngay sinh', 'geburtsdatum', 'geb datum', 'geb dat', 'geb', 'ne e le', 'szuletesi datum',
            'szuletesi ido', 'data urodzenia', 'geboren', 'дата народження', '出生日期', '生日', 'تاريخ الميلاد',
            'data de nascimento',
            'data di nascita', 'geboortedatum', 'תאריך לידה', 'fodselsdato', 'fodselsdag', 'fodelsedatum', 'fodt', 'syntymaaika',
            'dogum tarihi', 'data nasterii', 'datum narozeni', 'дата рождения', '생년월일', '生年月日', 'dat nesans',
        ],
        'grade' => [
            'grade', 'grades', 'gr', 'grade level', 'gradelevel', 'grade lvl', 'year', 'year level', 'year group',
            'nc year', 'curriculum year',
            'level', 'grado', 'curso', 'nivel', 'niveau', 'annee', 'klasse', 'klassenstufe', 'lop', 'khoi', 'клас',
            '年级', '年級', 'الصف', 'ano',
            'jahrgang', 'jahrgangsstufe', 'serie', 'שכבה', 'ano escolar', 'leerjaar', 'arskurs', 'klassetrinn', 'sinif',
            'класс', 'baitang', '학년', '学年',
            'grd', 'gr lvl', 'yr lvl', 'year lvl', 'grd lvl', 'lvl', 'gr level', 'yr level', 'grade entering',
        ],
        'homeroom' => [
            'homeroom', 'home room', 'room', 'room number', 'room no', 'rm', 'classroom', 'class room', 'hr',
            'form', 'form group', 'tutor group',
            'registration group', 'reg group', 'registration', 'reg', 'reg class', 'homeroom section', 'advisory', 'advisory group',
            'home class',
            'base class', 'salon', 'aula', 'classe', 'salle', 'lop chu nhiem', 'osztaly', 'klasa', '班级', '班級', 'الفصل',
            'klas', 'klass', 'clasa', 'כיתה', 'trida', 'classe e sezione', 'sube', '組',
            'hmrm', 'hrm', 'hm rm', 'gr rm', 'grade room', 'grade rm', 'grade hr', 'grade homeroom', 'grade class',
            'grade sect', 'grade section', 'grado y grupo', 'grado y seccion', 'grado grupo', 'curso y grupo',
            'jahrgang klasse',
        ],
        'section' => [
            'section', 'sections', 'class', 'classes', 'class section', 'class name', 'section name', 'section title',
            'crs', 'course', 'course section', 'course name', 'course title', 'group', 'groups', 'period class', 'clase',
            'clases', 'seccion', 'asignatura', 'grupo', 'cours', 'groupe', 'matiere', 'group name', 'lop hoc',
            'предмет', 'група', '课程', '班', 'الشعبة', 'المادة',
            'turma', 'sezione', 'groep',
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
            'telefoon', 'telefoonnummer', 'telemovel', 'هاتف', 'جوال', 'الجوال', 'رقم هاتف', 'رقم الجوال', 'טלפון', 'נייד', 'telefono cellulare', 'cellulare', 'telefonnummer', 'puhelin', '전화',
            '전화번호', '연락처', '電話', '電話番号', 'telefonszam',
            'cel', 'tel no', 'cell no', 'mob', 'ph', 'ph no', 'fon',
        ],
        'relationship' => [
            'relationship', 'relation', 'relationship to student', 'relation to student', 'relationship to child',
            'rel', 'kinship', 'parentesco', 'relacion', 'lien', 'lien de parente', 'quan he', 'ким доводиться', '关系',
            'صلة القرابة',
        ],
        'section_number' => [
            'section number', 'section no', 'section id', 'sec', 'sec no', 'sec number', 'class number',
            'course section number',
            'seccion numero', 'numero de seccion', 'numero de section',
        ],
        'school' => [
            'school', 'school name', 'school code', 'campus', 'building', 'escuela', 'colegio', 'centro', 'ecole',
            'etablissement', 'truong', 'школа', '学校', 'المدرسة', 'schule',
        ],
        'teacher' => [
            'teacher', 'teachers', 'teacher name', 'homeroom teacher', 'class teacher', 'form tutor', 'lead teacher',
            'lead', 'instructor', 'educator', 'profesor', 'profesora', 'docente', 'maestro', 'maestra', 'enseignant',
            'professeur', 'giao vien', 'вчитель', 'учитель', '老师', '教师', 'المعلم', 'lehrer',
            'adviser', 'advisor', 'class adviser', 'homeroom adviser', 'homeroom advisor', 'leerkracht',
            'insegnante', 'nauczyciel', 'professor', 'professora', 'osztalyfonok',
            'tchr', 'teach',
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
            'withdrawal date', 'withdraw date', 'date withdrawn', 'leave date', 'leaving date', 'date left', 'left on',
            'departure date', 'exit', 'exited on', 'drop date', 'fecha de baja', 'date de sortie', 'austrittsdatum',
            'abgangsdatum', 'fecha de fin', 'date de fin',
        ],
    ];

    /**
     * Columns that say something beside who somebody is; whole headings, whoever they say it is of. What else is
     * preferred, or called otherwise, is not read.
     */
    // prettier-ignore
    public const ASIDE = [
        'preferred_name' => [
            'preferred name', 'preferred first name', 'preferred given name', 'preferred', 'nickname', 'nick name',
            'known as', 'goes by', 'called', 'chosen name', 'chosen first name', 'usual name', 'everyday name',
            'name used', 'name in use', 'nombre preferido', 'apodo', 'surnom', 'prenom d usage', 'prenom prefere',
            'rufname', 'spitzname', 'biet danh', 'nome social',
        ],
        'language' => [
            'language', 'home language', 'family language', 'language at home', 'language spoken at home',
            'language spoken', 'spoken language', 'preferred language', 'primary language', 'first language',
            'native language', 'language of correspondence', 'correspondence language', 'contact language',
            'communication language', 'mail language', 'language code', 'idioma', 'idioma del hogar',
            'idioma de la familia', 'lengua', 'lengua materna', 'langue', 'langue maternelle', 'langue de la famille',
            'langue parlee a la maison', 'sprache', 'familiensprache', 'muttersprache', 'ngon ngu', 'мова', 'рідна мова',
            '语言', '家庭语言', 'اللغة', 'lingua', 'lingua materna',
        ],
    ];

    /** What is one word in another language, or in {@see self::GUARDIAN} and {@see self::STUDENT}. */
    public const TOGETHER = [
        'phu huynh' => 'phuhuynh',
        'jia zhang' => 'jiazhang',
        'bao hu zhe' => 'baohuzhe',
        'hoc sinh' => 'hocsinh',
        'xue sheng' => 'xuesheng',
        'wly alamr' => 'guardian',
        'next of kin' => 'guardian',
        'encarregado de educacao' => 'guardian',
        'encarregada de educacao' => 'guardian',
    ];

    /** Words that make a column a guardian's; the number is which of two parents it is by custom of such lists. */
    // prettier-ignore
    public const GUARDIAN = [
        'guardian' => 0, 'guardians' => 0, 'parent' => 0, 'parents' => 0, 'carer' => 0, 'caregiver' => 0,
        'contact' => 0, 'mother' => 1, 'mom' => 1, 'mum' => 1, 'father' => 2, 'dad' => 2, 'tutor' => 0, 'tutora' => 0,
        'acudiente' => 0, 'apoderado' => 0, 'responsable' => 0, 'representante' => 0, 'madre' => 1, 'mama' => 1,
        'padre' => 2, 'papa' => 2, 'padres' => 0, 'tuteur' => 0, 'mere' => 1, 'pere' => 2,
        'erziehungsberechtigte' => 0, 'erziehungsberechtigter' => 0, 'eltern' => 0, 'mutter' => 1, 'vater' => 2,
        'phuhuynh' => 0, 'opikun' => 0, 'anya' => 1, 'anyja' => 1, 'apa' => 2, 'apja' => 2, 'szulo' => 0,
        'gondviselo' => 0,
        'par' => 0, 'prnt' => 0, 'pg' => 0, 'gdn' => 0, 'grdn' => 0, 'guard' => 0, 'guardn' => 0, 'materi' => 1,
        'batka' => 2,
        'resp' => 0, 'batkiv' => 0, 'responsavel' => 0, 'mae' => 1,
        'pai' => 2, 'genitore' => 0, 'genitori' => 0, 'ouder' => 0,
        'moeder' => 1, 'vader' => 2,
        'rodzic' => 0, 'matka' => 1, 'ojciec' => 2, 'foralder' => 0, 'foraelder' => 0, 'forelder' => 0,
        'veli' => 0, 'bohoja' => 0,
        'baohuzhe' => 0, 'roditel' => 0, 'otec' => 2,
        'batki' => 0, 'mati' => 1, 'batko' => 2, 'jiazhang' => 0, 'family contact' => 0,
    ];

    // prettier-ignore
    public const STUDENT = [
        'student', 'students', 'stu', 'stud', 'pupil', 'pupils', 'child', 'childs', 'children', 'learner',
        'estudiante', 'alumno',
        'alumna', 'alumnos', 'nino', 'hijo', 'eleve', 'enfant', 'schuler', 'schueler', 'kind', 'hocsinh', 'ucen',
        'uchen', 'xuesheng', 'aluno', 'aluna', 'alunno', 'alunna', 'studente', 'leerling', 'elev', 'ogrenci',
        'ucenik', 'hagsaeng',
        'kid', 'kids',
    ];

    public const STAFF = ['staff', 'teacher', 'teachers', 'employee', 'lead', 'instructor', 'profesor', 'enseignant'];

    // prettier-ignore
    public const ORDINALS = [
        '1' => 1, '2' => 2, '3' => 3, '4' => 4, 'first' => 1, 'second' => 2, 'third' => 3, 'fourth' => 4,
        'primary' => 1, 'secondary' => 2, 'other' => 2, 'alternate' => 2, 'additional' => 2, 'one' => 1, 'two' => 2,
        'i' => 1, 'ii' => 2, 'a' => 1, 'b' => 2,
    ];

    // prettier-ignore
    public const FILLERS = [
        'the', 'of', 's', 'del', 'de', 'la', 'el', 'du', 'l', 'd', 'for', 'legal', 'current', 'required', 'optional',
        'info', 'information', 'new', 'their', 'your', 'what', 'is', 'please', 'enter', 'write', 'type', 'any', 'best',
        'to', 'reach', 'you', 'at', 'in', 'on', 'as', 'and', 'a', 'an', 'der', 'die', 'das', 'des', 'dem', 'im', 'en',
        'will', 'they', 'he', 'she', 'be', 'entering', 'are', 'which', 'following', 'upcoming',
        'september', 'august', 'fall', 'next', 'this', 'preferred contact', 'priority', 'main', 'o', 'ou', 'or',
    ];

    /** Words that are a heading alone, and say nothing inside a longer one. */
    // prettier-ignore
    public const VAGUE = [
        'number', 'no', 'nr', 'num', 'id', 'name', 'names', 'first', 'last', 'given', 'family', 'initial', 'from', 'to',
        'start', 'end', 'form', 'level', 'lead', 'title', 'position', 'group', 'groups', 'room', 'hr', 'year', 'until',
        'registration', 'identifier', 'middle', 'mi', 'ten', 'ho', 'nom', 'function', 'job', 'building', 'section',
        'sections', 'class', 'course', 'role', 'school', 'teacher', 'teachers', 'rel', 'relation', 'begins', 'ends',
        'starts', 'birth', 'level', 'birthday', 'home', 'cell', 'gr', 'curso', 'ano', 'klasse', 'classe', 'aula',
        'ad', 'adi', 'nume', 'nome', 'ima', 'klas', 'codice', 'serie', 'turma', 'groep', 'navn', 'namn', 'naam',
        'adviser', 'advisor',
    ];

    /** Words that turn a known phrase into something else. */
    // prettier-ignore
    public const ELSEWHERE = [
        'no', 'fee', 'fees', 'fund', 'code', 'type', 'count', 'total', 'average', 'score', 'party', 'consent',
        'permission',
        'form', 'status', 'date', 'verified', 'received', 'sent', 'update', 'updated', 'notes', 'emergency', 'doctor',
        'teacher', 'counselor', 'previous', 'prior', 'last', 'former', 'sibling', 'siblings', 'alt', 'locker', 'bus',
        'preferred', 'nickname', 'username', 'password', 'login', 'section', 'course', 'employee', 'staff', 'entry',
    ];

    /** Headings of columns that nothing is read from, some of them this product's own. */
    // prettier-ignore
    public const LEFT_OUT = [
        'what to do', 'row in the list', 'user name', 'username', 'login', 'passphrase', 'password', 'reason', 'notes',
        'note', 'comment', 'comments', 'remarks', 'gender', 'sex',
        'address', 'street', 'city', 'zip', 'postcode', 'allergies', 'medical', 'bus', 'locker', 'photo', 'ethnicity',
        'signature', 'present', 'attendance', 'total', 'totals', 'average', 'avg',
        'score', 'sexo', 'genero', 'direccion', 'adresse',
    ];
}
