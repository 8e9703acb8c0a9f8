<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\LineFolder;
use Vantrel\Core\Intake\ListContents;
use Vantrel\Core\Intake\SchoolFacts;
use Vantrel\Core\Intake\SectionLine;
use Vantrel\Core\Intake\StaffLine;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Values\StudentNumber;

/** @return list<string> given and family name of each student */
function givenAndFamily(ListContents $read): array
{
    return array_map(fn(StudentLine $s): string => "{$s->name->given} | {$s->name->family}", $read->students);
}

/** @return list<string> what is said of the row */
function saidOf(StudentLine $row): array
{
    return array_map(fn(Problem $p): string => $p->message, $row->problems);
}

it('puts the family name first in names of East Asia, whatever a blank does', function (): void {
    $read = Lists::contents(
        "氏名,生年月日,学年\n佐藤 花,平成27年3月4日,3年\n鈴木 大輔,令和元年11月24日,1年\n남궁 민서,2015년 3월 4일,3\n",
    );
    expect(givenAndFamily($read))
        ->toBe(['花 | 佐藤', '大輔 | 鈴木', '민서 | 남궁'])
        ->and(array_map(fn(StudentLine $s): string => $s->birthDate, $read->students))
        ->toBe(['2015-03-04', '2019-11-24', '2015-03-04'])
        ->and($read->questions)
        ->toBe([]);
});

it('takes figures of every script for what they are', function (): void {
    $read = Lists::contents("Name,Date of birth,Grade,Guardian phone\nOmar Nassar,٢٠١٤-١١-٢٨,٤,２０２-555-0101\n");
    [$row] = $read->students;
    expect([$row->birthDate, $row->grade, $row->guardians[0]->phone])->toBe(['2014-11-28', '04', '+12025550101']);
});

it('takes the marks of an office off a name, and says where one is none', function (): void {
    $read = Lists::contents(
        "Name,Grade\n\"Marsh, Cleo ♦ IEP\",3\n\"~Stone, Eve~\",3\n\"Reed, Dov\",3\nRed = has left,\nSubtotal grade 3,3\n",
    );
    expect(array_slice(givenAndFamily($read), 0, 3))
        ->toBe(['Cleo | Marsh', 'Eve | Stone', 'Dov | Reed'])
        ->and($read->students)
        ->toHaveCount(4)
        ->and(saidOf($read->students[3])[0])
        ->toContain('figures or signs that are in no name');
});

it('leaves out a guardian whose cell holds more than a name, and says so', function (string $cell): void {
    $read = Lists::contents("Student First,Student Last,Contacts\nAmara,Quill,\"$cell\"\nBo,Larch,Ines Larch\n");
    expect($read->students[0]->guardians)
        ->toBe([])
        ->and(implode(' ', saidOf($read->students[0])))
        ->toContain('holds more than a guardian’s name')
        ->and($read->students[1]->guardians[0]->name->full())
        ->toBe('Ines Larch');
})->with(['Mom (Dana) 202-555-0101 cell / Dad Rob 202-555-0102 x12 work', 'Grandma: 202-555-0103', '202-555-0104']);

it('never passes over a note that somebody may be kept from a child', function (): void {
    $read = Lists::contents(
        "First,Last,Parent,Relationship,Parent phone,Notes\n" .
            "Amara,Quill,Rob Quill,Father,202-555-0101,NO CONTACT with father per court order\n" .
            "Bo,Larch,Pat Oak,Do not call,202-555-0105,likes chess\n",
    );
    expect(saidOf($read->students[0])[0])
        ->toContain('“NO CONTACT with father per court order” is not read')
        ->and($read->students[1]->guardians)
        ->toBe([])
        ->and(saidOf($read->students[1]))
        ->toHaveCount(1)
        ->and(saidOf($read->students[1])[0])
        ->toContain('“Do not call” is no relationship')
        // At the head of the plan too, where nobody has to open a row to see it.
        ->and($read->warnings[0])
        ->toContain('Rows 2, 3 have notes that may keep somebody from a child');
});

it('takes no address, photograph or peanut for such a note, nor a name for a word', function (): void {
    $read = Lists::contents(
        "Student,Guardian,Address,Notes\nAda Quill,See Vang,14 Heron Court,Do not photograph\n" .
            "Robert Larch 3rd,Ines Larch,2 Custard Way,peanuts not allowed\n",
    );
    expect([saidOf($read->students[0]), saidOf($read->students[1])])
        ->toBe([[], []])
        ->and($read->students[0]->guardians[0]->name->full())
        ->toBe('See Vang')
        ->and($read->students[1]->name->full())
        ->toBe('Robert Larch 3rd');
});

it('says a note beside somebody of the staff, and misses nothing else of them for it', function (): void {
    $read = Lists::contents("Name,Role,Email,Notes\nAda Okafor,Teacher,,court order on file\n");
    expect(array_map(fn(Problem $p): string => $p->message, $read->staff[0]->problems))
        ->toHaveCount(2)
        ->and($read->staff[0]->problems[0]->message)
        ->toContain('Staff sign in with their e-mail address');
});

it('gives the address of a form to who filled it in', function (): void {
    $read = Lists::contents(
        "Timestamp,Email Address,What is your child's first name?,What is your child's last name?,Your name," .
            "Your relationship to the child,Best phone to reach you\n" .
            "2026/08/01 9:12:03 AM EST,dana@mail.example,Amara,Quill,Dana Quill,Mom,202 555 0101\n",
    );
    [$row] = $read->students;
    expect($row->email)
        ->toBe('')
        ->and(array_map(fn(GuardianLine $g): array => [$g->name->full(), $g->email, $g->relationship], $row->guardians))
        ->toBe([['Dana Quill', 'dana@mail.example', 'Mom']]);
});

it('tells classes of the same name in two grades apart', function (string $list, array $classes): void {
    $read = Lists::contents($list);
    expect(
        array_map(
            fn(StudentLine $s): string => $s->homeroom !== '' ? $s->homeroom : implode(' ', $s->sections),
            $read->students,
        ),
    )->toBe($classes);
    expect(str_contains(implode(' ', $read->warnings), 'begin again in each grade'))->toBe(
        $classes[0] !== 'A' && $classes[0] !== '12',
    );
})->with([
    'letters' => ["Name,Grade,Section\nAda Quill,7,A\nBo Larch,7,B\nCleo Marsh,8,A\n", ['7A', '7B', '8A']],
    'numbers' => ["성명,학년,반\n김하늘,3,1반\n이서준,3,2반\n박민서,4,1반\n", ['3-1', '3-2', '4-1']],
    'of one grade' => ["Name,Grade,Section\nAda Quill,7,A\nBo Larch,7,B\n", ['A', 'B']],
    'rooms that two grades share' => [
        "Name,Grade,Room\nAda Quill,3,12\nBo Larch,4,12\nCleo Marsh,4,1\n",
        ['12', '12', '1'],
    ],
]);

it('makes no section of yes and no, and no name of a count', function (): void {
    $marks = Lists::contents("Name,Section 1,Section 2\nAda Quill,Y,\nBo Larch,,Y\n");
    expect($marks->students[0]->sections)
        ->toBe([])
        ->and(implode(' ', $marks->warnings))
        ->toContain('Section 1 and Section 2');
    $staff = Lists::contents(
        "Title,Name,Position,Work email,Students\nMr.,Ada Okafor,Teacher,okafor@school.example,24\n" .
            "Dr,Lena Brandt,Counselor,brandt@school.example,6\n",
    );
    expect($staff->staff)->toHaveCount(2)->and($staff->students)->toBe([]);
});

it('reads headings below a wider one as its parts', function (): void {
    $read = Lists::contents("Name,,Grade\nFirst,Last,\nAda,Quill,3\nBo,Larch,4\n");
    expect(givenAndFamily($read))
        ->toBe(['Ada | Quill', 'Bo | Larch'])
        ->and($read->students[0]->grade)
        ->toBe('03')
        ->and(implode(' ', $read->warnings))
        ->toContain('Rows 1, 2 are read as one header');
});

it('counts relationships with their guardians, and asks what a tutor is', function (): void {
    $read = Lists::contents(
        "Student,Guardian 1,Relationship 1,Guardian 2,Relationship 2\nAda Quill,Dana Quill,Mother,Rob Quill,Father\n",
    );
    expect(array_map(fn(GuardianLine $g): string => $g->relationship, $read->students[0]->guardians))
        ->toBe(['Mother', 'Father'])
        ->and(Lists::contents("Pupil,Tutor\nAda Quill,Mr Okafor\nBo Larch,Ms Brandt\n")->questions[0]->text)
        ->toBe('What does column Tutor hold?')
        ->and(Lists::contents("Nombre,Apellidos,Grado,Tutor\nAda,Quill,3,Juan Quill\n")->questions)
        ->toBe([]);
});

it('takes no word for another that is two letters away', function (): void {
    expect(implode(' ', Lists::contents("Student,Schedule\nAda Quill,Math; Art\nBo Larch,Art\n")->warnings))->toContain(
        'Nothing is read from column Schedule',
    );
});

it('gives co-teachers and aides beside the lead a row of their own', function (): void {
    $read = Lists::contents(
        "Section,Lead teacher,Lead email,Co-teacher,Co-teacher email,Aide\n" .
            "3 Heron,Ada Okafor,okafor@school.example,Lena Brandt,brandt@school.example,\n" .
            "4 Wren,Min Sung,sung@school.example,,,Ola Reyes\n",
    );
    expect(array_map(fn(SectionLine $s): array => [$s->name, $s->teacher->full(), $s->teacherEmail], $read->sections))
        ->toBe([['3 Heron', 'Ada Okafor', 'okafor@school.example'], ['4 Wren', 'Min Sung', 'sung@school.example']])
        ->and(array_map(fn(StaffLine $s): array => [$s->name->full(), $s->email, $s->role, $s->sections], $read->staff))
        ->toBe([
            ['Lena Brandt', 'brandt@school.example', 'co_teacher', ['3 Heron']],
            ['Ola Reyes', '', 'assistant', ['4 Wren']],
        ]);
    $students = Lists::contents("Student,Homeroom,Teacher,Aide\nAda Quill,3 Heron,Ada Okafor,Ola Reyes\n");
    expect($students->students)->toHaveCount(1)->and($students->staff)->toBe([]);
});

it('brings nobody in by a list of several schools of which none is this one', function (): void {
    $read = Lists::contents(
        "School,Name,Grade\nTidewater Primary,Ada Quill,3\nTidewater Middle,Bo Larch,7\n",
        [],
        new SchoolFacts('Lanternfield'),
    );
    expect(saidOf($read->students[0])[0])
        ->toContain('The list names 2 schools, and Lanternfield is none of them')
        ->and(
            saidOf(
                Lists::contents("School,Name\nLFP,Ada Quill\nLFP,Bo Larch\n", [], new SchoolFacts('Lanternfield'))
                    ->students[0],
            ),
        )
        ->toBe([]);
});

it('puts a name together that nobody quoted', function (): void {
    $read = Lists::contents("Name,Grade,Homeroom\nQuill, Ada,3,3 Heron\nLarch, Bo,4,4 Wren\nMarsh,3,3 Heron\n");
    expect(array_slice(givenAndFamily($read), 0, 2))
        ->toBe(['Ada | Quill', 'Bo | Larch'])
        ->and($read->students[1]->homeroom)
        ->toBe('4 Wren');
});

it('makes no guardian of a parent who is none', function (string $cell): void {
    $read = Lists::contents("Student,Mother,Father\nAda Quill,Dana Quill,$cell\n");
    expect($read->students[0]->guardians)
        ->toHaveCount(1)
        ->and(saidOf($read->students[0])[0])
        ->toContain("“{$cell}” names nobody");
})->with(['deceased', 'see mother', 'not involved', 'No father', 'fallecido']);

it('takes whoever stands beside a child of the family for a guardian, whatever the headings repeat', function (): void {
    $read = Lists::contents(
        "First,Last,Grade,First,Last,Email\nAda,Quill,3,Dana,Quill,dana@mail.example\nBo,Larch,4,Ines,Larch,ines@mail.example\n",
    );
    expect(givenAndFamily($read))
        ->toBe(['Ada | Quill', 'Bo | Larch'])
        ->and($read->students[0]->guardians[0]->name->full())
        ->toBe('Dana Quill')
        ->and($read->students[0]->guardians[0]->email)
        ->toBe('dana@mail.example');
});

it('says when headings of names seem to be exchanged', function (): void {
    $list = fn(string $head): array => Lists::contents("$head\nGarcia,Maria\nSmith,James\nBrown,Sarah\nJohnson,David\n")
        ->warnings;
    expect(implode(' ', $list('First name,Last name')))
        ->toContain('If the headings are exchanged')
        ->and(implode(' ', $list('Last name,First name')))
        ->not->toContain('exchanged');
});

it('leaves out what was dropped, hints in brackets, and the year of leaving', function (): void {
    $moves = Lists::contents("Student,Action,Section\nAda Quill,Add,3 Heron\nBo Larch,Drop,4 Wren\n");
    expect(givenAndFamily($moves))->toBe(['Ada | Quill']);
    $hints = Lists::contents(
        "Stu ID,Stu Name,DOB\n(7 digits),\"(Last, First)\",(mm/dd/yyyy)\n7000001,\"Quill, Ada\",04/13/2015\n",
    );
    expect(givenAndFamily($hints))->toBe(['Ada | Quill']);
    $years = Lists::contents("First,Last,Class of\nAda,Quill,2031\nBo,Larch,2032\n");
    expect($years->students[0]->sections)->toBe([])->and(implode(' ', $years->warnings))->toContain('Class of');
});

it('tells numbers apart as the database does', function (): void {
    $read = Lists::contents("Student number,First,Last\nS001,Ada,Quill\ns001,Bo,Larch\nS-001,Cleo,Marsh\n");
    $folded = new LineFolder($read->students);
    expect($folded->students())
        ->toHaveCount(2)
        ->and(array_values($folded->refused())[0][1]->message)
        ->toBe('Row 2 gives the number s001 to Ada Quill. Correct one of the two.')
        ->and(StudentNumber::key('É01'))
        ->toBe(StudentNumber::key('e01'));
});

it('takes an address that a form was given for nobody’s', function (string $address, bool $kept): void {
    $read = Lists::contents("First,Last,Parent email\nAda,Quill,$address\n");
    expect($read->students[0]->guardians === [])
        ->toBe(!$kept)
        ->and(saidOf($read->students[0]) === [])
        ->toBe($kept);
})->with([
    ['none@none.example', false],
    ['no-email@school.example', false],
    ['na@na.example', false],
    ['na@school.example', true],
    ['nona@mail.example', true],
    ['xavier@xavier.example', true],
]);

it('reads grades and quotation marks of other languages, and what a column of custody says', function (): void {
    $read = Lists::contents("Name,Grade,Custodial\n“Ada Quill”,الصف الثالث,N\nBo Larch,CE2,Y\n");
    expect(array_map(fn(StudentLine $s): string => $s->grade, $read->students))
        ->toBe(['03', '03'])
        ->and(givenAndFamily($read)[0])
        ->toBe('Ada | Quill')
        ->and(saidOf($read->students[0])[0])
        ->toContain('“N” is not read')
        ->and(saidOf($read->students[1]))
        ->toBe([]);
});
