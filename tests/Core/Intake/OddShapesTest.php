<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Intake\RowWords;

/** @return list<string> row and what was understood of it, what is said at the row after a ? */
function understood(string $list): array
{
    $contents = Lists::contents($list);
    $lines = [...$contents->students, ...$contents->staff, ...$contents->sections];

    return array_map(
        fn($l): string => "$l->number " .
            RowWords::of($l) .
            implode('', array_map(fn($p): string => " ? $p->message", $l->problems)),
        $lines,
    );
}

it('reads shapes that offices make', function (string $list, array $rows): void {
    expect(understood($list))->toBe($rows);
})->with([
    'a class in each column' => [
        "3A,3B\nAda Quill,Tim Rowe\nKai Wu,\n",
        ['2 Ada | Quill, in 3A', '3 Kai | Wu, in 3A', '2 Tim | Rowe, in 3B'],
    ],
    'a class in each pair of columns' => [
        "Room 12 (Vale),,Room 14 (Marsh),\nAda Quill,050101,Tim Rowe,050103\nKai Wu,050102,Bo Vale,050104\n",
        [
            '2 Ada | Quill, 050101, in Room 12 (Vale)',
            '3 Kai | Wu, 050102, in Room 12 (Vale)',
            '2 Tim | Rowe, 050103, in Room 14 (Marsh)',
            '3 Bo | Vale, 050104, in Room 14 (Marsh)',
        ],
    ],
    'boys and girls' => ["Boys,Girls\nKai Wu,Ada Quill\nTim Rowe,\n", ['2 Kai | Wu', '3 Tim | Rowe', '2 Ada | Quill']],
    'classes under each other without a header' => [
        "Grade 3 - Ms. Vale\nAda Quill\nKai Wu\n\nGrade 4 - Mr. Marsh\nNoor Haddad\nBo Vale\n",
        [
            '2 Ada | Quill, in Grade 3 - Ms. Vale',
            '3 Kai | Wu, in Grade 3 - Ms. Vale',
            '6 Noor | Haddad, in Grade 4 - Mr. Marsh',
            '7 Bo | Vale, in Grade 4 - Mr. Marsh',
        ],
    ],
    'students, then staff' => [
        "Students,,,\nName,Grade,Homeroom,ID\n\"Quill, Ada\",3,3A,050101\n,,,\nStaff,,,\nName,Email,Role,\n\"Vale, Amy\",amy@s.example,Teacher,\n",
        ['3 Ada | Quill, 050101, grade 3, in 3A', '7 Amy | Vale, amy@s.example, lead'],
    ],
    'grades as headings without a colon' => [
        "Grade 3,\nName,DOB\nAda Quill,4/13/2018\nGrade 4,\nName,DOB\nTim Rowe,4/13/2017\n",
        ['3 Ada | Quill, born 2018-04-13, grade 3', '6 Tim | Rowe, born 2017-04-13, grade 4'],
    ],
    'several things said above the header' => [
        "Teacher: Amy Vale,\nRoom: 12,Grade: 3\nName,ID\n\"Quill, Ada\",040101\nBoys: 1,Girls: 0\n",
        ['4 Ada | Quill, 040101, grade 3, in 12'],
    ],
    'a class in cells beside each other between the rows' => [
        "Ms. Vale,Room 12,Grade 3\n#,Student,ID\n1,\"Quill, Ada\",040101\nMs. Marsh,Room 14,Grade 4\n#,Student,ID\n" .
        "1,\"Wu, Kai\",040103\n",
        ['3 Ada | Quill, 040101, grade 3, in 12', '6 Kai | Wu, 040103, grade 4, in 14'],
    ],
    'grades above names, and no header' => [
        "3rd Grade\nAda Quill\nTim Rowe\n4th Grade\nKai Wu\nNoor Haddad\n",
        ['2 Ada | Quill, grade 3', '3 Tim | Rowe, grade 3', '5 Kai | Wu, grade 4', '6 Noor | Haddad, grade 4'],
    ],
    'a grade stands once' => [
        "Grade,Name,ID\n3,Ada Quill,040101\n,Tim Rowe,040102\n4,Kai Wu,040103\n,Noor Haddad,040104\n",
        [
            '2 Ada | Quill, 040101, grade 3',
            '3 Tim | Rowe, 040102, grade 3',
            '4 Kai | Wu, 040103, grade 4',
            '5 Noor | Haddad, 040104, grade 4',
        ],
    ],
    'somebody without a class is not of the class above' => [
        "Name,Homeroom\nAda Quill,3A\nTim Rowe,\nKai Wu,3A\nNoor Haddad,\n",
        ['2 Ada | Quill, in 3A', '3 Tim | Rowe', '4 Kai | Wu, in 3A', '5 Noor | Haddad'],
    ],
    'a parent beside the child under the same headings' => [
        "Name,Email,Phone,Name,Email,Phone\nAda Quill,ada@s.example,,Rosa Quill,rosa@h.example,555-010-0101\n" .
        "Tim Rowe,tim@s.example,,Anne Rowe,anne@h.example,555-010-0103\n",
        [
            '2 Ada | Quill, ada@s.example, guardian Rosa | Quill rosa@h.example +15550100101',
            '3 Tim | Rowe, tim@s.example, guardian Anne | Rowe anne@h.example +15550100103',
        ],
    ],
    'namesakes in two classes beside each other' => [
        "Last,First,Grade,Last,First,Grade\nQuill,Ada,3,Rowe,Ada,4\nVale,Tim,3,Vale,Kai,4\n",
        ['2 Ada | Quill, grade 3', '3 Tim | Vale, grade 3', '2 Ada | Rowe, grade 4', '3 Kai | Vale, grade 4'],
    ],
    'all children of a family in a cell' => [
        "Guardian First,Guardian Last,Children\nRosa,Quill,\"Ada Quill (3), Ben Quill (1)\"\nAnne,Rowe,Tim Rowe (4)\n",
        [
            '2 Ada | Quill, grade 3, guardian Rosa | Quill',
            '3 Tim | Rowe, grade 4, guardian Anne | Rowe',
            '2 Ben | Quill, grade 1, guardian Rosa | Quill',
        ],
    ],
    'their grades in a cell beside it' => [
        "Household,Parent(s),Student(s),Grades\nQuill,Rosa & John,\"Ada, Ben\",\"3, 1\"\nRowe,Anne,Tim,4\n",
        [
            '2 Ada | Quill, grade 3, guardian Rosa, guardian John',
            '3 Tim | Rowe, grade 4, guardian Anne',
            '2 Ben | Quill, grade 1, guardian Rosa, guardian John',
        ],
    ],
    'one child a cell under a heading of several' => [
        "Students,Grade,Room\n\"Quill, Ada\",3,12\n\"Rowe, Tim\",4,14\n",
        ['2 Ada | Quill, grade 3, in 12', '3 Tim | Rowe, grade 4, in 14'],
    ],
    'five children in a cell' => [
        "Guardian,Children\nRosa Quill,\"Ada Quill, Ben Quill, Cy Quill, Dee Quill, Eve Quill\"\nAnne Rowe,Tim Rowe\n",
        [
            '2 Ada | Quill, guardian Rosa | Quill',
            '3 Tim | Rowe, guardian Anne | Rowe',
            '2 Ben | Quill, guardian Rosa | Quill',
            '2 Cy | Quill, guardian Rosa | Quill',
            '2 Dee | Quill, guardian Rosa | Quill',
            '2 Eve | Quill, guardian Rosa | Quill',
        ],
    ],
    'somebody called Sample' => [
        "Name,Grade\n\"Sample, Ada\",3\n\"Rowe, Tim\",4\n",
        ['2 Ada | Sample, grade 3', '3 Tim | Rowe, grade 4'],
    ],
    'what a mark means, below the list' => [
        "Name,Grade\nAda Quill*,3\nTim Rowe,4\n* = new this year,\n",
        ['2 Ada | Quill, grade 3', '3 Tim | Rowe, grade 4'],
    ],
    'what a form says of itself' => [
        "First Name*,Last Name*,Grade\nRequired,Required,Optional\n(example) Jane,Doe,3\nAda,Quill,3\nMax,Vale,4\n",
        ['4 Ada | Quill, grade 3', '5 Max | Vale, grade 4'],
    ],
    'what was printed below the last class' => [
        "Name,ID,DOB\nHomeroom: 3A,,\n\"Quill, Ada\",040101,4/13/2018\nHomeroom: 4B,,\n\"Wu, Kai\",040102,4/13/2017\n" .
        "Printed 9/1/2026,,\n",
        ['3 Ada | Quill, 040101, born 2018-04-13, in 3A', '5 Kai | Wu, 040102, born 2017-04-13, in 4B'],
    ],
    'all in one column, at dashes' => [
        "Ada Quill - Grade 3 - Room 12\nTim Rowe - Grade 4 - Room 14\nKai Wu - Grade 4 - Room 14\n",
        ['1 Ada | Quill, grade 3', '2 Tim | Rowe, grade 4', '3 Kai | Wu, grade 4'],
    ],
    'a number in brackets after each name' => [
        "Ada Quill (040101)\nTim Rowe (040102)\nKai Wu (040103)\n",
        ['1 Ada | Quill, 040101', '2 Tim | Rowe, 040102', '3 Kai | Wu, 040103'],
    ],
    'a letter is nobody' => [
        "Name,Grade\nA,\nAda Quill,3\nTim Rowe,4\n",
        ['3 Ada | Quill, grade 3', '4 Tim | Rowe, grade 4'],
    ],
    'two whole names in a guardian’s cell' => [
        "Student Name,Parent Name(s)\nTim Rowe,\"Anne Rowe, Mark Stone\"\nAda Quill,\"Quill, Rosa\"\n",
        ['2 Tim | Rowe, guardian Anne | Rowe, guardian Mark | Stone', '3 Ada | Quill, guardian Rosa | Quill'],
    ],
    'gentlemen, and names beside the name' => [
        "Nom;Prénom;Responsable légal\nQUILL;Ada;M. QUILL Jean\nROWE;Tim aka Timmy;Mme ROWE Anne\n",
        ['2 Ada | Quill, guardian Jean | Quill', '3 Tim | Rowe, guardian Anne | Rowe'],
    ],
    'headings nobody knows' => [
        "Zog,Blip,Wunk,Frob\nAda Quill,A123456,3,ada@s.example\nKai Wu,A123457,3,kai@s.example\n",
        ['2 Ada | Quill, A123456, grade 3, ada@s.example', '3 Kai | Wu, A123457, grade 3, kai@s.example'],
    ],
    'course, section and period' => [
        "Student Name,Course,Section,Period\n\"Quill, Ada\",Math 7,1,2\n\"Wu, Kai\",Math 7,2,3\n",
        ['2 Ada | Quill, in Math 7 - 1', '3 Kai | Wu, in Math 7 - 2'],
    ],
    'course and period alone' => [
        "Student Name,Course,Period\n\"Quill, Ada\",Math 7,2\n\"Wu, Kai\",Math 7,3\n",
        ['2 Ada | Quill, in Math 7 - 2', '3 Kai | Wu, in Math 7 - 3'],
    ],
]);

it('reads cells as offices write them', function (string $list, array $rows): void {
    expect(understood($list))->toBe($rows);
})->with([
    'zeros kept by a formula' => [
        "Name,ID,DOB\n\"Quill, Ada\",\"=\"\"040101\"\"\",\"=\"\"04/13/2018\"\"\"\n",
        ['2 Ada | Quill, 040101, born 2018-04-13'],
    ],
    'the whole name under the family name' => [
        "Last Name,First Name,Grade\n\"Quill, Ada\",,3\nRowe,Tim,3\n",
        ['2 Ada | Quill, grade 3', '3 Tim | Rowe, grade 3'],
    ],
    'marks of the office' => [
        "Name,Grade\n\"NEW - Quill, Ada\",3\n\"Wu, Kai - 504\",3\n\"12. Marsh, Ida *\",3\n\"Rowe, Timothy \"\"Tim\"\"\",3\n\"New, Sam\",3\n",
        [
            '2 Ada | Quill, grade 3',
            '3 Kai | Wu, grade 3',
            '4 Ida | Marsh, grade 3',
            '5 Timothy | Rowe, grade 3',
            '6 Sam | New, grade 3',
        ],
    ],
    'who a guardian is, in the name' => [
        "Name,Parent\n\"Quill, Ada\",Mother: Ann Quill\n\"Wu, Kai\",Lin Wu (mom)\n\"Vale, Bo\",Mrs. Amy Vale\n\"Ma, Ana\",Ma Li\n",
        [
            '2 Ada | Quill, Mother Ann | Quill',
            '3 Kai | Wu, mom Lin | Wu',
            '4 Bo | Vale, guardian Amy | Vale',
            '5 Ana | Ma, guardian Li | Ma',
        ],
    ],
    'an address in the name' => [
        "Student,Grade,Parent\nAda Quill,3,Ann Quill <ann@x.example>\n",
        ['2 Ada | Quill, grade 3, guardian Ann | Quill ann@x.example'],
    ],
    'a number in the name, and a note in the grade' => [
        "Student,Grade\n\"Quill, Ada (050101)\",3rd Grade (Vale)\n\"Wu, Kai (050102)\",4th Grade (Marsh)\n",
        ['2 Ada | Quill, 050101, grade 3', '3 Kai | Wu, 050102, grade 4'],
    ],
    'who a guardian is, in a column of types' => [
        "first_name,last_name,guardian_first_name,guardian_last_name,guardian_type\nAda,Quill,Ann,Quill,Mother\n",
        ['2 Ada | Quill, Mother Ann | Quill'],
    ],
    'names of Vietnamese' => [
        "Họ và tên,Phụ huynh\nNguyễn Thị Mai,Nguyễn Văn Nam\nTrần Minh Khoa,Trần Thị Lan\nLê Gia Bảo,Lê Văn Hùng\n",
        [
            '2 Thị Mai | Nguyễn, guardian Văn Nam | Nguyễn',
            '3 Minh Khoa | Trần, guardian Thị Lan | Trần',
            '4 Gia Bảo | Lê, guardian Văn Hùng | Lê',
        ],
    ],
    'two phones, and one without its area code' => [
        "Name,Parent,Phone\n\"Quill, Ada\",Ann Quill,202-555-0101 / 202-555-0102\n\"Wu, Kai\",Lin Wu,555-0105\n",
        [
            '2 Ada | Quill, guardian Ann | Quill +12025550101 ? There are two numbers; +12025550101 is taken. Give the other a column of its own.',
            '3 Kai | Wu, guardian Lin | Wu ? “555-0105” cannot be a phone number with its area code, and is left out. Correct it, or empty the cell.',
        ],
    ],
]);
