<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Tests\Support\OddLists\ReadingScore;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\SchoolFacts;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;

/** @return list<string> each student in one line: row, given|family, grade, section, guardians */
function readOff(string|Grid $list, ?SchoolFacts $school = null): array
{
    return array_map(
        fn(StudentLine $l): string => trim(
            "$l->number {$l->name->given}|{$l->name->family} $l->grade " .
                implode(',', array_filter([$l->homeroom, ...$l->sections])) .
                ' ' .
                implode(
                    ',',
                    array_map(fn(GuardianLine $g): string => trim("{$g->name->full()} $g->email"), $l->guardians),
                ),
        ),
        Lists::contents($list, [], $school)->students,
    );
}

// The whole campaign, on other seeds, is bin/campaign reading.
it('reads odd lists right, or says what it does not understand', function (): void {
    $score = new ReadingScore();
    for ($seed = 9001; $seed <= 9200; $seed++) {
        $score->add($seed);
    }
    expect($score->silent)
        ->toBeLessThanOrEqual(1, implode("\n", $score->examples))
        ->and($score->right)
        ->toBeGreaterThanOrEqual(190);
});

it('finds the tables in a sheet before it asks what they mean', function (string $list, array $read): void {
    expect(readOff($list))->toBe($read);
})->with([
    'a header of two rows' => [
        ",,Parent 1,,Parent 2,\nName,Grade,Name,Email,Name,Email\n\"Quill, Ada\",3,Ann Quill,ann@x.example,Bo Quill,bo@x.example\n",
        ['3 Ada|Quill 03  Ann Quill ann@x.example,Bo Quill bo@x.example'],
    ],
    'blocks with a heading' => [
        "Homeroom: 3A   Teacher: Ms. Vale,\nName,Grade\n\"Quill, Ada\",3\nHomeroom: 3B,\nName,Grade\n\"Wu, Kai\",3\nTotal: 2,\n",
        ['3 Ada|Quill 03 3A', '6 Kai|Wu 03 3B'],
    ],
    'side by side' => [
        "3A,,,3B,\nName,Grade,,Name,Grade\n\"Quill, Ada\",3,,\"Wu, Kai\",3\n",
        ['3 Ada|Quill 03 3A', '3 Kai|Wu 03 3B'],
    ],
    'a second guardian below' => [
        "ID,Name,Grade,Parent,Parent email\n1,\"Quill, Ada\",3,Ann Quill,ann@x.example\n,,,Bo Quill,bo@x.example\n",
        ['2 Ada|Quill 03  Ann Quill ann@x.example', '3 Ada|Quill 03  Bo Quill bo@x.example'],
    ],
    'the family name once' => [
        "Family,Child,Grade\nQuill,Ada,3\n,Bo,K\nWu,Kai,2\n",
        ['2 Ada|Quill 03', '3 Bo|Quill KG', '4 Kai|Wu 02'],
    ],
    'ditto marks' => [
        "Last,First,Grade,Homeroom\nQuill,Ada,3,3A\nWu,Kai,ditto,ditto\n",
        ['2 Ada|Quill 03 3A', '3 Kai|Wu 03 3A'],
    ],
    'a family in a row' => [
        "Parent name,Parent email,Child 1 name,Child 1 grade,Child 2 name,Child 2 grade\n" .
        "Ann Quill,ann@x.example,Ada Quill,3,Bo Quill,5\nLi Wu,li@x.example,Kai Wu,2,,\n",
        [
            '2 Ada|Quill 03  Ann Quill ann@x.example',
            '3 Kai|Wu 02  Li Wu li@x.example',
            '2 Bo|Quill 05  Ann Quill ann@x.example',
        ],
    ],
    'text in columns by blanks' => [
        "ID       Name             Gr\n100001   Quill, Ada       3\n100002   Wu, Kai          2\n\nTotal students: 2      Page 1\n",
        ['2 Ada|Quill 03', '3 Kai|Wu 02'],
    ],
    'names in a mail' => [
        "Hi Marge,\nhere are the new ones:\n1) Ada Quill - 3rd\n2) Kai Wu\nThanks!\nPetra\n",
        ['3 Ada|Quill 03', '4 Kai|Wu'],
    ],
    'names cut at their comma' => [
        "Name,Grade,Homeroom\nQuill, Ada,3,3A\nWu, Kai,2,2B\n",
        ['2 Ada|Quill 03 3A', '3 Kai|Wu 02 2B'],
    ],
    'a course and the number of its section' => [
        "ID,Name,Grade,Course Name,Section Number\n1,\"Quill, Ada\",7,Math 7,1\n2,\"Wu, Kai\",7,Math 7,2\n",
        ['2 Ada|Quill 07 Math 7 - 1', '3 Kai|Wu 07 Math 7 - 2'],
    ],
    'codes of sections in one cell' => [
        "ID,Name,Sections\n1,\"Quill, Ada\",\"MATH-7A, SCI-7B\"\n2,\"Wu, Kai\",\"Reading, Grade 3\"\n",
        ['2 Ada|Quill  MATH-7A,SCI-7B', '3 Kai|Wu  Reading, Grade 3'],
    ],
    'a homeroom said by its teacher' => [
        "ID,Name,Grade,Homeroom Teacher\n1,\"Quill, Ada\",3,\"Vale, Amy\"\n2,\"Wu, Kai\",3,\"Rowe, Tim\"\n",
        ['2 Ada|Quill 03 Amy Vale', '3 Kai|Wu 03 Tim Rowe'],
    ],
]);

it('leaves out what the file itself has taken out, and says so', function (): void {
    $grid = Grid::of([
        new Line(1, ['Name', 'Grade']),
        new Line(2, ['Quill, Ada', '3']),
        new Line(3, ['Wu, Kai', '3'], [], true),
        new Line(4, ['Ek, Bo', '3'], [], false, true),
    ]);
    $contents = Lists::contents($grid);
    expect(array_map(fn(StudentLine $l): int => $l->number, $contents->students))
        ->toBe([2])
        ->and($contents->warnings[0])
        ->toStartWith('Row 3 is hidden in the file')
        ->and($contents->warnings[1])
        ->toContain('Row 4 is struck out');
    // Where nothing else is there, that is the list.
    expect(
        readOff(Grid::of([new Line(1, ['Name', 'Grade'], [], true), new Line(2, ['Quill, Ada', '3'], [], true)])),
    )->toBe(['2 Ada|Quill 03']);
});

it('keeps rows of another school out where the list names both', function (): void {
    $school = new SchoolFacts('Lanternfield Primary', 'lanternfield');
    $list = "School,ID,Name,Grade\nLanternfield,1,\"Quill, Ada\",3\nCopperbrook Middle,2,\"Wu, Kai\",3\n";
    $contents = Lists::contents($list, [], $school);
    expect(array_map(fn(StudentLine $l): bool => $l->problems === [], $contents->students))
        ->toBe([true, false])
        ->and($contents->warnings)
        ->toBe(['One row is of another school, Copperbrook Middle, and left out here.']);
    // Where it names none, it calls this one by another name.
    expect(Lists::contents("School,ID,Name\nLF,1,\"Quill, Ada\"\n", [], $school)->students[0]->problems)->toBe([]);
});

it('turns half-converted dates back, and asks', function (): void {
    $list =
        "ID,Last,First,DOB\n1,A,Ada,2017-09-08\n2,B,Bo,24/11/2016\n3,C,Cy,2016-01-10\n4,D,Di,29/03/2017\n5,E,Ed,2017-12-01\n6,F,Fay,31/07/2017\n";
    $born = fn(array $said): array => array_map(
        fn(StudentLine $l): string => $l->birthDate,
        Lists::contents($list, $said)->students,
    );
    expect($born([]))
        ->toBe(['2017-08-09', '2016-11-24', '2016-10-01', '2017-03-29', '2017-01-12', '2017-07-31'])
        ->and(array_map(fn($q): string => $q->id, Lists::contents($list)->questions))
        ->toBe(['t0.turned'])
        ->and(Lists::contents($list, ['t0.turned' => 'turn'])->questions)
        ->toBe([])
        ->and($born(['t0.turned' => 'keep'])[0])
        ->toBe('2017-09-08');
});

it('judges each column of guardians by itself', function (): void {
    $list =
        "Last,First,Mother,Father\nQuill,Ada,Quill Ann,Bo Quill\nWu,Kai,Wu Li,Jo Wu\nMarchetti,Noor,Marchetti Eva,Max Marchetti\n";
    expect(
        array_map(
            fn(StudentLine $l): string => implode(
                ' ',
                array_map(fn(GuardianLine $g): string => "{$g->name->given}|{$g->name->family}", $l->guardians),
            ),
            Lists::contents($list)->students,
        ),
    )->toBe(['Ann|Quill Bo|Quill', 'Li|Wu Jo|Wu', 'Eva|Marchetti Max|Marchetti']);
});
