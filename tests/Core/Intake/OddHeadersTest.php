<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Intake\RowWords;
use Vantrel\Core\Table\UnreadableList;

/** @return list<string> row and what was understood of it */
function readAs(string $list): array
{
    $contents = Lists::contents($list);

    return array_map(fn($l): string => "$l->number " . RowWords::of($l), [
        ...$contents->students,
        ...$contents->staff,
        ...$contents->sections,
    ]);
}

it('knows a header by what stands below it', function (string $list, array $rows): void {
    expect(readAs($list))->toBe($rows);
})->with([
    'few headings of many are known, and one is a figure' => [
        "First,Last,Grade,ELL,IEP,504,Lunch,Bus\nAda,Quill,3,Y,N,N,Free,12\nTim,Rowe,3,N,Y,N,Paid,\n",
        ['2 Ada | Quill, grade 3', '3 Tim | Rowe, grade 3'],
    ],
    'one is known' => [
        "Student,Grad Year,House\nAda Quill,2030,Red\nTim Rowe,2031,Blue\n",
        ['2 Ada | Quill', '3 Tim | Rowe'],
    ],
    'days of attendance' => [
        "Class Attendance - Ms. Vale 3A,,,\nName,9/1,9/2,Total\n\"Quill, Ada\",P,A,1\n\"Rowe, Tim\",P,P,2\nTotal present,2,1,3\n",
        ['3 Ada | Quill', '4 Tim | Rowe'],
    ],
    'marks of a gradebook, with their average' => [
        "Student,ID,HW1,HW2,Quiz\nAda Quill,040101,90,85,77\nTim Rowe,040102,60,75,88\nClass average,,75,80,82.5\n",
        ['2 Ada | Quill, 040101', '3 Tim | Rowe, 040102'],
    ],
    'periods with a section each' => [
        "Student,Period 1,Period 2\n\"Quill, Ada\",Algebra 1 - Vale,Biology - Marsh\n\"Wu, Kai\",Algebra 1 - Vale,Art\n",
        ['2 Ada | Quill, in Algebra 1 - Vale, Biology - Marsh', '3 Kai | Wu, in Algebra 1 - Vale, Art'],
    ],
    'three rows of it' => [
        "Student,,,Contact,,\nName,,DOB,Parent,,\nLast,First,,Name,Phone,Email\n" .
        "Quill,Ada,3/12/2018,Rosa Quill,555-010-0101,rosa@h.example\n" .
        "Rowe,Tim,11/25/2017,Mark Rowe,555-010-0102,mark@h.example\n",
        [
            '4 Ada | Quill, born 2018-03-12, guardian Rosa | Quill rosa@h.example +15550100101',
            '5 Tim | Rowe, born 2017-11-25, guardian Mark | Rowe mark@h.example +15550100102',
        ],
    ],
]);

it('knows headings as systems and offices shorten them', function (string $list, array $rows): void {
    expect(readAs($list))->toBe($rows);
})->with([
    'of a directory' => [
        "STU_ID,STU_LNAME,STU_FNAME,GRADE_LVL,BIRTH_DT,P1_LNAME,P1_FNAME,P1_EMAIL,ENR_STAT\n" .
        "040101,Quill,Ada,03,2018-03-12,Quill,Rosa,rosa@h.example,A\n" .
        "040102,Rowe,Tim,04,2017-11-25,Rowe,Anne,anne@h.example,A\n",
        [
            '2 Ada | Quill, 040101, born 2018-03-12, grade 3, guardian Rosa | Quill rosa@h.example',
            '3 Tim | Rowe, 040102, born 2017-11-25, grade 4, guardian Anne | Rowe anne@h.example',
        ],
    ],
    'in capitals' => [
        "STUDENT LAST NAME,STUDENT FIRST NAME,GRD,HMRM,PAR/GUARD 1,PG1 PHONE\nQUILL,ADA,03,3A,ROSA QUILL,5550100101\n" .
        "ROWE,TIM,03,3A,ANNE ROWE,5550100102\n",
        [
            '2 Ada | Quill, grade 3, in 3A, guardian Rosa | Quill +15550100101',
            '3 Tim | Rowe, grade 3, in 3A, guardian Anne | Rowe +15550100102',
        ],
    ],
    'in two languages at once' => [
        "Name / Nombre,Grade / Grado,Parent / Padre,Phone / Teléfono\nAda Quill,3,Rosa Quill,555-010-0101\n" .
        "Tim Rowe,4,Anne Rowe,555-010-0102\n",
        [
            '2 Ada | Quill, grade 3, guardian Rosa | Quill +15550100101',
            '3 Tim | Rowe, grade 4, guardian Anne | Rowe +15550100102',
        ],
    ],
    'grade and class in one' => [
        "Student,Gr/Rm\nAda Quill,3/12\nTim Rowe,4/14\n",
        ['2 Ada | Quill, grade 3, in 3/12', '3 Tim | Rowe, grade 4, in 4/14'],
    ],
    'two family names' => [
        "Apellido Paterno,Apellido Materno,Nombre(s),Grado y grupo\nGarcía,López,Ana María,3°A\nRuiz,Soto,José,3°B\n",
        ['2 Ana María | García López, grade 3, in 3°A', '3 José | Ruiz Soto, grade 3, in 3°B'],
    ],
    'what stands before and after the family name' => [
        "Achternaam,Tussenvoegsel,Roepnaam,Suffix\nBerg,van der,Sanne,\nROWE,,TIM,III\n",
        ['2 Sanne | van der Berg', '3 Tim | Rowe III'],
    ],
    'a teacher’s name in two columns' => [
        "Course Title,Sec,Teacher Last,Teacher First\nMath 7,1,Vale,Amy\nMath 7,2,Vale,Amy\nScience 7,1,Marsh,Bo\n",
        ['2 Math 7 - 1, with Amy | Vale', '3 Math 7 - 2, with Amy | Vale', '4 Science 7 - 1, with Bo | Marsh'],
    ],
    'with slips of the finger' => [
        "Frist Name,Lsat Name,Grdae,Studnet ID\nAda,Quill,3,040101\nTim,Rowe,4,040102\n",
        ['2 Ada | Quill, 040101, grade 3', '3 Tim | Rowe, 040102, grade 4'],
    ],
    'the three parts of a name in one cell' => [
        "\"Legal name (Last / First / Middle)\",Entering grade\nQuill / Ada / Mae,3\nRowe / Tim /,4\n",
        ['2 Ada Mae | Quill, grade 3', '3 Tim | Rowe, grade 4'],
    ],
    'who somebody is under a heading that does not say so' => [
        "Student,Contact,Type,Phone\nAda Quill,Rosa Quill,Mother,555-010-0101\nTim Rowe,Mark Rowe,Father,555-010-0103\n",
        ['2 Ada | Quill, Mother Rosa | Quill +15550100101', '3 Tim | Rowe, Father Mark | Rowe +15550100103'],
    ],
    'yes and no are no names' => [
        "Stu ID,Contact Name,Relation,Has Custody,Email\n040101,Rosa Quill,Mother,Y,rosa@h.example\n040102,Anne Rowe,Mother,N,\n",
        ['2 040101, Mother Rosa | Quill rosa@h.example', '3 040102, Mother Anne | Rowe'],
    ],
    'the parts of the name in one heading' => [
        "Last Name Suffix First Name Middle,Gr\n\"Quill, Ada M.\",3\n\"Rowe Jr., Tim\",4\n",
        ['2 Ada M. | Quill, grade 3', '3 Tim | Rowe Jr., grade 4'],
    ],
    'numbers of students with course and section' => [
        "Student #,Crs,Sec,Teacher\n40101,MATH7,01,VALE\n40101,SCI7,02,MARSH\n",
        ['2 40101, in MATH7 - 01', '3 40101, in SCI7 - 02'],
    ],
    'what stands above says that they are of the staff' => [
        "Staff Directory 2026-27,,\nName,Phone,Room\nAmy Vale,555-010-0101,12\nBo Marsh,555-010-0102,14\n",
        ['3 Amy | Vale, +15550100101, lead', '4 Bo | Marsh, +15550100102, lead'],
    ],
    'an emergency contact is no guardian' => [
        "Child,Grade,Mom,Mom cell,Emergency contact,Emergency phone\n" .
        "Ada Quill,3,Rosa Quill,555-010-0101,Bo Vale,555-010-0109\n" .
        "Tim Rowe,4,Anne Rowe,555-010-0103,Sam Rowe,555-010-0108\n",
        [
            '2 Ada | Quill, grade 3, mother Rosa | Quill +15550100101',
            '3 Tim | Rowe, grade 4, mother Anne | Rowe +15550100103',
        ],
    ],
    'positions and rooms are of staff' => [
        "Name,Position,Room,Email\n\"Vale, Amy\",Grade 3 Teacher,12,amy.vale@s.example\n" .
        "\"Marsh, Bo\",School Nurse,Clinic,bo.marsh@s.example\n",
        ['2 Amy | Vale, amy.vale@s.example, assistant', '3 Bo | Marsh, bo.marsh@s.example, assistant'],
    ],
]);

it('reads headings of many languages', function (string $list, string $row): void {
    expect(readAs($list)[0] ?? '')->toBe($row);
})->with([
    'Dutch' => [
        "Voornaam,Achternaam,Geboortedatum\nSanne,Jansen,13-03-2018\nDaan,Boer,25-11-2017\n",
        '2 Sanne | Jansen, born 2018-03-13',
    ],
    'Italian' => [
        "Cognome,Nome,Classe,Data di nascita\nRossi,Giulia,3A,13/03/2018\nBianchi,Marco,3A,25/11/2017\n",
        '2 Giulia | Rossi, born 2018-03-13, in 3A',
    ],
    'Polish' => [
        "Nazwisko,Imię,Data urodzenia\nKowalska,Zofia,13.03.2018\nNowak,Jan,25.11.2017\n",
        '2 Zofia | Kowalska, born 2018-03-13',
    ],
    'Portuguese' => [
        "Nome completo,Data de nascimento,Série,Responsável\nAna Lima,13/03/2018,3º ano,Carlos Lima\nRui Silva,25/11/2017,3º ano,Marta Silva\n",
        '2 Ana | Lima, born 2018-03-13, grade 3, guardian Carlos | Lima',
    ],
    'Korean' => [
        "학번,이름,학년,생년월일,보호자\n240101,김서연,3,2018-03-12,김영호\n240102,이도윤,3,2018-05-01,박미정\n",
        '2 서연 | 김, 240101, born 2018-03-12, grade 3, guardian 영호 | 김',
    ],
    'Ukrainian, with the father’s name' => [
        "ПІБ учня,ПІБ матері\nШевчук Оксана Петрівна,Шевчук Марія Іванівна\nБондар Тарас Ігорович,Бондар Олена Василівна\n",
        '2 Оксана Петрівна | Шевчук, mother Марія Іванівна | Шевчук',
    ],
]);

it('says how to turn a list whose rows are no people', function (string $list, string $cure): void {
    expect(fn() => Lists::contents($list))->toThrow(UnreadableList::class, $cure);
})->with([
    'headings below each other' => [
        "Name,Ada Quill,Tim Rowe\nID,040101,040102\nGrade,3,4\n",
        'rows and columns exchanged',
    ],
    'a form for each' => [
        "Name:,Ada Quill\nGrade:,3\nID:,040101\nName:,Tim Rowe\nGrade:,4\nID:,040102\n",
        'in several rows',
    ],
    'all names in one row' => ["Ada Quill,Tim Rowe,Kai Wu,Noor Haddad\n", 'in one row'],
]);

it('asks and says what it cannot know', function (): void {
    $asked = fn(string $list): array => array_map(fn($q): string => $q->text, Lists::contents($list)->questions);
    expect($asked("Ada Quill,Kai Wu\nTim Rowe,Noor Haddad\nBo Vale,Sam Stone\n"))->toContain(
        'What does column B hold?',
    );
    $rows = Lists::contents(
        "Student: Ada Quill (040101),,\nMother,Rosa Quill,555-010-0101\nFather,John Quill,555-010-0102\n",
    );
    expect($rows->students)
        ->toHaveCount(2)
        ->and($rows->students[0]->problems[0]->message)
        ->toContain('does not say which student')
        ->and($rows->students[0]->guardians[0]->name->full())
        ->toBe('Rosa Quill');
    $clubs = Lists::contents("\"Quill, Ada\",Choir\n\"Quill, Ada\",Robotics\n\"Rowe, Tim\",Band\n");
    expect($clubs->students[0]->name->full())
        ->toBe('Ada Quill')
        ->and($clubs->warnings)
        ->toContain('Nothing is read from column B.');
});

it('reads what somebody goes by, and what the family reads', function (string $list, array $rows): void {
    expect(readAs($list))->toBe($rows);
})->with([
    'beside the legal names' => [
        "Student ID,Legal Last Name,Legal First Name,Preferred First Name,Preferred Last Name,Home Language,Grade\n" .
        "040101,Quill,Adelaide,Addie,Quill,Spanish,3\n040102,Rowe,Timothy,TIM,Rowe,vi,3\n040103,Wu,Kai,,,,3\n",
        [
            '2 Adelaide | Quill, goes by Addie, 040101, grade 3, family reads Spanish',
            '3 Timothy | Rowe, goes by Tim, 040102, grade 3, family reads Vietnamese',
            '4 Kai | Wu, 040103, grade 3',
        ],
    ],
    'a nickname that is the name, or the whole of it' => [
        "Name,Grade,Nickname\nAda Quill,3,Ada\nTimothy Rowe,3,Tim Rowe\nKai Wu,3,-\n",
        ['2 Ada | Quill, grade 3', '3 Timothy | Rowe, goes by Tim, grade 3', '4 Kai | Wu, grade 3'],
    ],
    'in another language, of the guardian too' => [
        "Apellido,Nombre,Apodo,Grado,Idioma del hogar\nQuill,Adelaida,Ada,3,Español\nRowe,Timoteo,,3,English\n",
        [
            '2 Adelaida | Quill, goes by Ada, grade 3, family reads Spanish',
            '3 Timoteo | Rowe, grade 3, family reads English',
        ],
    ],
    'of the parents' => [
        "Student,Grade,Parent,Parent Email,Parent Language\nAda Quill,3,Rosa Quill,rosa@h.example,es\n" .
        "Kai Wu,3,Lin Wu,lin@h.example,zh-Hans\n",
        [
            '2 Ada | Quill, grade 3, family reads Spanish, guardian Rosa | Quill rosa@h.example',
            '3 Kai | Wu, grade 3, family reads Chinese, guardian Lin | Wu lin@h.example',
        ],
    ],
    'a second language that somebody learns is none' => [
        "Name,Grade,Class,Second Language\nAda Quill,3,Ceramics 3,yes\nKai Wu,3,Marine science,no\n",
        ['2 Ada | Quill, grade 3, in Ceramics 3', '3 Kai | Wu, grade 3, in Marine science'],
    ],
]);

it('leaves a language out that it does not know, and says so', function (): void {
    $contents = Lists::contents("Name,Grade,Language\nAda Quill,3,Spanish\nKai Wu,3,Elvish\n");
    expect($contents->students[1]->language)
        ->toBe('')
        ->and($contents->students[1]->problems[0]->message)
        ->toBe('“Elvish” is not a language known here, and is left out. Write its English name, or its code.')
        ->and($contents->students[1]->stopped())
        ->toBeFalse();
});
