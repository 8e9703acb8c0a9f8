<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Intake\SchoolFacts;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Heading;
use Vantrel\Core\Table\Lettering;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Table\Mojibake;
use Vantrel\Core\Table\Repair;
use Vantrel\Core\Table\Sheet;

it('knows headings in the languages of the product', function (string $heading, ?string $field): void {
    $scores = Heading::read($heading);
    arsort($scores);
    expect(array_key_first($scores))->toBe($field);
})->with([
    ['Student ID #', 'student_number'],
    ["Child's Name", 'full_name'],
    ['LastName', 'family_name'],
    ['D.O.B.', 'birth_date'],
    ['Birth Dtae', 'birth_date'],
    ['Gr.', 'grade'],
    ['Parent/Guardian 1 Email', 'guardian_email'],
    ["Father's Cell Phone", 'guardian2_phone'],
    ['Email (guardian 2)', 'guardian2_email'],
    ['Parent First Name', 'guardian_given'],
    ['Homeroom Teacher', 'teacher'],
    ['Teacher e-mail', 'teacher_email'],
    ['Relationship', 'guardian_relationship'],
    ['Apellidos', 'family_name'],
    ['Correo del padre', 'guardian2_email'],
    ['Fecha de nacimiento', 'birth_date'],
    ['Prénom', 'given_name'],
    ['Date de naissance', 'birth_date'],
    ['Họ và tên', 'full_name'],
    ['Ngày sinh', 'birth_date'],
    ['Прізвище', 'family_name'],
    ['Клас', 'grade'],
    ['姓名', 'full_name'],
    ['家长', 'guardian_name'],
    ['电话', 'phone'],
    ['الاسم', 'full_name'],
    ['ولي الأمر', 'guardian_name'],
    ['Emergency contact', null],
    ['Allergies', null],
    ['What to do', null],
    ['', null],
]);

it('tells what the rows of a list are', function (string $csv, ListKind $kind): void {
    expect(Lists::layout($csv)->kind)->toBe($kind);
})->with([
    ["Name,Grade\nNoor Haddad,4\n", ListKind::Students],
    ["Student,Parent,Parent email\nNoor Haddad,Ann Haddad,ann@x.example\n", ListKind::Students],
    ["Student number,Guardian,Email\n020417,Ann Haddad,ann@x.example\n", ListKind::Guardians],
    ["Student name,Name,Email\nNoor Haddad,Ann Haddad,ann@x.example\n", ListKind::Guardians],
    ["Student number,Section\n020417,Art 3\n", ListKind::Enrollments],
    ["Staff name,Email,Role\nPetra Okonjo,p@x.example,Teacher\n", ListKind::Staff],
    ["Class,Teacher,Grade\n4 Curlew,Petra Okonjo,4\n", ListKind::Sections],
]);

it('finds the header below titles, leaves totals and titles between out, and says so', function (): void {
    $contents = Lists::contents(
        "Lanternfield Primary\nFall 2026,,\n\nNo.,Student,Gr,DOB\n1,\"HADDAD, NOOR\",4,2016-08-03\n" .
            "Grade 5:,,,\n2,\"Wu, Kai\",5,2015-08-03\n3,\"Chen, Mei\",5,2015-08-04\nTotal: 3,,,\n",
    );
    expect(
        array_map(
            fn(StudentLine $l): string => "{$l->number} {$l->name->full()} {$l->studentNumber}",
            $contents->students,
        ),
    )
        ->toBe(['5 Noor Haddad ', '7 Kai Wu ', '8 Mei Chen '])
        ->and($contents->warnings)
        ->toBe([
            'Row 6 is read as a title, not as a person.',
            'Row 9 holds a total or a page number, and is left out.',
        ]);
});

it('decides the order of names for the column as a whole, and asks where nothing settles it', function (): void {
    $book = new NameBook(['noor' => 3, 'kai' => 4, 'mei' => 2], ['haddad' => 5, 'wu' => 7, 'chen' => 3]);
    $first = Lists::layout("Name\nHaddad Noor\nWu Kai\nChen Mei\nRao Uma\n", [], $book);
    expect($first->names->familyFirst)
        ->toBeTrue()
        ->and($first->names->odds)
        ->toBeGreaterThan(100.0)
        ->and(Lists::layout("Name\nNoor Haddad\nKai Wu\nMei Chen\n", [], $book)->names->familyFirst)
        ->toBeFalse();
    $open = Lists::contents("Name,Grade\nQuu Zavv,3\nXorr Beel,3\nVonn Karr,3\n");
    expect($open->questions[0]->id)
        ->toBe('t0.names')
        ->and(
            Lists::contents("Name,Grade\nQuu Zavv,3\nXorr Beel,3\nVonn Karr,3\n", ['t0.names' => 'family'])->students[0]
                ->name->family,
        )
        ->toBe('Quu')
        ->and(
            Lists::contents("Name,Grade\nQuu Zavv,3\nXorr Beel,3\nVonn Karr,3\n", ['t0.names' => 'family'])->questions,
        )
        ->toBe([]);
});

it('keeps two family names together where it knows them', function (): void {
    $book = new NameBook(['sofia' => 3], ['ortiz' => 6, 'reyes' => 5]);
    $line = Lists::contents("Name,Grade\nSofía Ortiz Reyes,3\n", ['t0.names' => 'given'], null, $book)->students[0];
    expect([$line->name->given, $line->name->family])->toBe(['Sofía', 'Ortiz Reyes']);
});

it('shows every repair beside what was written, and takes each back alone or by column', function (): void {
    $csv =
        "Student number,Name,Grade,DOB\n20417,\"HADDAD, NOOR\",4,42585\n020418,\"Wu, Kai\",4,2016-08-04\n" .
        "020419,JosÃ© PeÃ±a,4,2016-08-05\n020420,Mei Chen (new),4,2016-08-06\n";
    $repairs = fn(array $said): array => array_map(
        fn(Repair $r): string => "$r->kind: $r->before > $r->after",
        array_merge(
            ...array_map(
                fn(StudentLine $l): array => $l->repairs,
                Lists::contents($csv, ['t0.names' => 'given', ...$said])->students,
            ),
        ),
    );
    expect($repairs([]))
        ->toBe([
            'capitals: HADDAD, NOOR > Haddad, Noor',
            'leading zeros: 20417 > 020417',
            'spreadsheet day number: 42585 > 2016-08-03',
            'encoding: JosÃ© PeÃ±a > José Peña',
            'note left out: Mei Chen (new) > Mei Chen',
        ])
        ->and($repairs(['keep.t0.c0' => 'yes']))
        ->not->toContain('leading zeros: 20417 > 020417')
        ->and($repairs(['keep.t0.r2.c1' => 'yes']))
        ->not->toContain('capitals: HADDAD, NOOR > Haddad, Noor')
        ->toContain('encoding: JosÃ© PeÃ±a > José Peña');
    expect(Lists::contents($csv, ['keep.t0.c0' => 'yes'])->students[0]->studentNumber)->toBe('20417');
});

it('restores zeros that every number of the list has lost from what the school has', function (): void {
    expect(
        Lists::contents("Student number,Name\n417,Noor Haddad\n20418,Kai Wu\n", [], new SchoolFacts(numberWidth: 6))
            ->students[1]->studentNumber,
    )->toBe('020418');
});

it('reads day numbers of the 1904 system where the grades give them away', function (): void {
    $csv = "Name,Grade,DOB\n";
    foreach (range(1, 6) as $i) {
        $csv .= "Child$i Family$i,4," . (42585 + $i - 1462) . "\n";
    }
    expect(Lists::contents($csv)->students[0]->birthDate)
        ->toBe('2016-08-04')
        ->and(
            Lists::contents(
                str_replace(
                    ['41124', '41125', '41126', '41127', '41128', '41129'],
                    ['42586', '42587', '42588', '42589', '42590', '42591'],
                    $csv,
                ),
            )->students[0]->birthDate,
        )
        ->toBe('2016-08-04');
});

it('asks once which comes first, day or month, when nothing in the column says it', function (): void {
    $csv = "Name,DOB\nNoor Haddad,03/04/2016\nKai Wu,05/06/2016\n";
    $contents = Lists::contents($csv);
    expect($contents->questions)
        ->toHaveCount(1)
        ->and($contents->questions[0]->id)
        ->toBe('t0.dates')
        ->and($contents->students[0]->birthDate)
        ->toBe('')
        ->and($contents->students[0]->stopped())
        ->toBeTrue()
        ->and(Lists::contents($csv, ['t0.dates' => 'none'])->students[0]->stopped())
        ->toBeFalse()
        ->and(Lists::contents($csv, ['t0.dates' => 'day'])->students[0]->birthDate)
        ->toBe('2016-04-03')
        ->and(Lists::contents($csv, ['t0.dates' => 'month'])->students[0]->birthDate)
        ->toBe('2016-03-04')
        ->and(Lists::contents($csv . "Mei Chen,13/06/2016\n")->students[0]->birthDate)
        ->toBe('2016-04-03');
});

it('names place, reason and cure of what it cannot take', function (
    string $row,
    string $column,
    string $says,
    bool $stops,
): void {
    $problems = Lists::contents(
        "Student no,Name,Grade,DOB,E-mail,Guardian,Guardian e-mail,Guardian phone\n$row\n,Kai Wu,4,2016-08-04,,,,\n",
        [],
        new SchoolFacts('Lanternfield Primary', 'primary', 'US', 0, 5),
    )->students[0]->problems;
    expect($problems)
        ->toHaveCount(1)
        ->and($problems[0])
        ->toEqual(new Problem($column, $problems[0]->message, $stops))
        ->and($problems[0]->message)
        ->toContain($says);
})->with([
    ['1.2E+05,Noor Haddad,4,,,,,', 'Student no', 'as text', true],
    [',Noor Haddad,9,,,,,', 'Grade', 'not taught at Lanternfield Primary (K to 5)', false],
    [',Noor Haddad,4th street,,,,,', 'Grade', 'is not a grade', true],
    [',Noor Haddad,4,2016-02-30,,,,', 'DOB', 'is not a date', true],
    [',Noor Haddad,4,2036-02-03,,,,', 'DOB', 'in the future', true],
    [',Noor Haddad,4,1974-02-03,,,,', 'DOB', 'would be 52', true],
    [',Noor Haddad,5,2020-02-03,,,,', 'DOB', 'Check the date and the grade', false],
    [',Noor Haddad,4,,noor at x,,,', 'E-mail', 'is not an e-mail address', true],
    [',Noor Haddad,4,,,Noor Haddad,,', 'Guardian', 'the student’s own', false],
    [',Noor Haddad,4,,,Ann,,555', 'Guardian phone', 'area code', false],
]);

it('takes words that mean nothing for nothing', function (): void {
    $line = Lists::contents("Name,Grade,DOB,E-mail,Guardian phone\nNoor Haddad,4,n/a,none,-\n")->students[0];
    expect([$line->birthDate, $line->email, $line->guardians, $line->problems])->toBe(['', '', [], []]);
});

it('mends a mail domain that is one slip from a common one or the school’s own, and shows it', function (): void {
    $csv = "Name,E-mail\nNoor Haddad,noor@lanternfeild.example\nKai Wu,kai@other.example\n";
    $lines = Lists::contents($csv, [], new SchoolFacts(mailDomains: ['lanternfield.example']))->students;
    expect($lines[0]->email)
        ->toBe('noor@lanternfield.example')
        ->and($lines[0]->repairs[0]->kind)
        ->toBe('mail domain')
        ->and($lines[1]->email)
        ->toBe('kai@other.example');
});

it('takes phones to E.164 by the school’s country', function (): void {
    expect(
        Lists::contents("Name,Guardian,Guardian phone\nNoor Haddad,Ann,(202) 555-0143 mom\n")->students[0]->guardians[0]
            ->phone,
    )
        ->toBe('+12025550143')
        ->and(
            Lists::contents(
                "Name,Guardian,Guardian phone\nNoor Haddad,Ann,020 7946 0123\n",
                [],
                new SchoolFacts(country: 'GB'),
            )->students[0]->guardians[0]->phone,
        )
        ->toBe('+442079460123');
});

it('reads four guardians beside a student, and their relationship from the heading', function (): void {
    $line = Lists::contents(
        "Name,Mother's name,Mother's e-mail,Father's name,Father's phone,Guardian 3 first name,Guardian 3 " .
            "last name,Guardian 4\n" .
            "Noor Haddad,Ann Haddad,ann@x.example,Sami Haddad,202-555-0143,Oma,Vale,Uncle Bo\n",
    )->students[0];
    expect(
        array_map(fn($g): array => [$g->name->full(), $g->email, $g->phone, $g->relationship], $line->guardians),
    )->toBe([
        ['Ann Haddad', 'ann@x.example', '', 'mother'],
        ['Sami Haddad', '', '+12025550143', 'father'],
        ['Oma Vale', '', '', ''],
        ['Uncle Bo', '', '', ''],
    ]);
});

it('takes a plain address that follows the guardian for the guardian’s', function (): void {
    $line = Lists::contents(
        "Student number,Name,Guardian,Relationship,Email,Phone\n" .
            "020417,Noor Haddad,Ann Haddad,mother,ann@x.example,202-555-0143\n",
    )->students[0];
    expect($line->email)
        ->toBe('')
        ->and($line->guardians[0]->email)
        ->toBe('ann@x.example')
        ->and($line->guardians[0]->phone)
        ->toBe('+12025550143');
});

it('reads several sheets together: a sheet for each section, and one of guardians', function (): void {
    $sheet = fn(string $name, string $csv): Sheet => new Sheet($name, DelimitedText::grid($csv), 'book');
    $contents = Lists::book([
        $sheet('4 Curlew', "Name,Grade\nNoor Haddad,4\nKai Wu,4\n"),
        $sheet('Chess club', "Name,Grade\nNoor Haddad,4\n"),
        $sheet('Parents', "Student name,Name,E-mail\nNoor Haddad,Ann Haddad,ann@x.example\n"),
    ])->contents;
    expect(
        array_map(
            fn(StudentLine $l): array => [$l->sheet, $l->name->full(), $l->sections, count($l->guardians), $l->mayAdd],
            $contents->students,
        ),
    )->toBe([
        ['4 Curlew', 'Noor Haddad', ['4 Curlew'], 0, true],
        ['4 Curlew', 'Kai Wu', ['4 Curlew'], 0, true],
        ['Chess club', 'Noor Haddad', ['Chess club'], 0, true],
        ['Parents', 'Noor Haddad', [], 1, false],
    ]);
    expect(
        Lists::book([$sheet('Sheet1', "Name,Grade\nNoor Haddad,4\n"), $sheet('Sheet2', "Name,Grade\nKai Wu,4\n")])
            ->contents->students[0]->sections,
    )->toBe([]);
});

it('leaves a sheet out that holds no list, and says so', function (): void {
    $book = Lists::book([
        new Sheet('List', DelimitedText::grid("Name,Grade\nNoor Haddad,4\n")),
        new Sheet('Notes', DelimitedText::grid("12,13\n14,15\n")),
    ]);
    expect($book->contents->students)
        ->toHaveCount(1)
        ->and($book->contents->warnings[0])
        ->toContain('Notes is left out');
});

it('tells one-byte encodings apart by the words they make', function (string $encoding): void {
    $text = "Name;Klasse\nJürgen Müller;4\nSøren Ångström;3\nJosé Peña;2\nZoë Lefèvre;1\n";
    expect(Lettering::read((string) iconv('UTF-8', $encoding, $text))->text)->toBe($text);
})->with(['WINDOWS-1252', 'ISO-8859-1', 'ISO-8859-15', 'MACINTOSH']);

it('undoes double encoding only where the tell-tale pairs are', function (): void {
    expect(Mojibake::mend('Å»uÅ‚awski'))->toBe('Żuławski')->and(Mojibake::mend('Åsa Ñandú'))->toBe('Åsa Ñandú');
});

it('counts a running number as no student number', function (): void {
    $layout = Lists::layout("No.,Name,Grade\n1,Noor Haddad,4\n2,Kai Wu,4\n3,Mei Chen,4\n");
    expect(array_map(fn(Column $c): ?Field => $c->field, $layout->columns))
        ->toBe([null, Field::FullName, Field::Grade])
        ->and(
            Lists::layout("Student number,Name\n1,Noor Haddad\n2,Kai Wu\n3,Mei Chen\n")->indexOf(Field::StudentNumber),
        )
        ->toBe(0);
});

it('asks whether a list is another school’s when it is full of grades that are not taught', function (): void {
    $school = new SchoolFacts('Lanternfield Primary', 'primary', 'US', 0, 5);
    expect(
        Lists::contents("Name,Grade\nNoor Haddad,9\nKai Wu,10\nMei Chen,9\n", ['t0.names' => 'given'], $school)
            ->warnings,
    )
        ->toBe([
            '3 of 3 rows have a grade that Lanternfield Primary does not teach (K to 5). Is this the list of ' .
            'another school?',
        ])
        ->and(
            Lists::contents(
                "Name,Grade\nNoor Haddad,3\nKai Wu,3\nMei Chen,4\nAda Rao,9\n",
                ['t0.names' => 'given'],
                $school,
            )->warnings,
        )
        ->toBe([]);
});
