<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Names\Couple;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\ListKind;
use Vantrel\Core\Values\StudentStatus;

/** @return list<int> rows of the students that are brought in */
function broughtIn(string $list, array $said = []): array
{
    return array_map(fn(StudentLine $l): int => $l->number, Lists::contents($list, $said)->students);
}

it('leaves out whoever a list says has left', function (string $list, array $rows, string $warning): void {
    $contents = Lists::contents($list);
    expect(broughtIn($list))->toBe($rows)->and(implode(' ', $contents->warnings))->toContain($warning);
})->with([
    'by a state' => [
        "Name,Grade,Status\n\"Quill, Ada\",3,Active\n\"Wu, Kai\",3,Withdrawn\n\"Vale, Bo\",3,No Show\n",
        [2],
        'Rows 3, 4 say that the students have left (“Withdrawn”, “No Show”), and are left out.',
    ],
    'by a state in Spanish' => [
        "Nombre,Apellidos,Grado,Estado\nAda,Quill,3,Activo\nKai,Wu,3,Baja\n",
        [2],
        'Row 3 says that the student has left (“Baja”), and is left out.',
    ],
    'by a yes or no' => [
        "Name,Grade,Active\n\"Quill, Ada\",3,Y\n\"Wu, Kai\",3,N\n",
        [2],
        'Row 3 says that the student has left (“N”)',
    ],
    'by an exit date that has passed' => [
        "Name,Grade,Withdrawal Date\n\"Quill, Ada\",3,\n\"Wu, Kai\",3,9/15/2026\n\"Vale, Bo\",3,12/18/2026\n",
        [2, 4],
        'Row 3 says that the student has left (“Withdrawal Date 2026-09-15”)',
    ],
    'but not who came back' => [
        "Name,Grade,Entry Date,Exit Date\n\"Quill, Ada\",3,8/20/2026,6/10/2026\n\"Wu, Kai\",3,8/20/2025,6/10/2026\n",
        [2],
        'Row 3 says',
    ],
    'a state that nobody knows is said, and the row stays' => [
        "Name,Grade,Status\n\"Quill, Ada\",3,Active\n\"Wu, Kai\",3,Blue\n\"Vale, Bo\",3,Active\n",
        [2, 3, 4],
        'It is not known what “Blue” means in column Status',
    ],
]);

it('takes a column of states for one only by what it says, and a row that is said to count counts', function (): void {
    $lunch = "Name,Grade,Status\n\"Quill, Ada\",3,Reduced\n\"Wu, Kai\",3,Free\n";
    expect(Lists::layout($lunch)->indexOf(Field::Status))
        ->toBeNull()
        ->and(Lists::contents($lunch)->warnings)
        ->toBe(['Nothing is read from column Status.'])
        ->and(broughtIn("Name,Grade,Status\n\"Quill, Ada\",3,Left\n\"Wu, Kai\",3,Active\n", ['s0.r2' => 'row']))
        ->toBe([2, 3]);
    // The last day of a course is no exit.
    expect(broughtIn("Name,Grade,End date\n\"Quill, Ada\",3,6/10/2026\n\"Wu, Kai\",3,\n"))->toBe([2, 3]);
});

it('knows words of states', function (string $word, ?StudentStatus $status): void {
    expect(StudentStatus::read($word, 'Status'))->toBe($status);
})->with([
    ['Active', StudentStatus::Here],
    ['ENROLLED', StudentStatus::Here],
    ['Inscrit', StudentStatus::Here],
    ['Transferred out', StudentStatus::Gone],
    ['W/D', StudentStatus::Gone],
    ['Graduated 2026', StudentStatus::Gone],
    ['radiée', StudentStatus::Gone],
    ['Winter', null],
    ['Y', null],
]);

it('reads two people in one cell', function (string $cell, ?array $read, bool $familyFirst = false): void {
    $couple = Couple::read($cell, $familyFirst);
    expect($couple === null ? null : array_map(fn($n): string => "$n->given|$n->family", $couple))->toBe($read);
})->with([
    ['John & Mary Smith', ['John|Smith', 'Mary|Smith']],
    ['John and Mary Ann Smith', ['John|Smith', 'Mary Ann|Smith']],
    ['Smith, John & Mary', ['John|Smith', 'Mary|Smith']],
    ['Smith, John and Jones, Mary', ['John|Smith', 'Mary|Jones']],
    ['Ann Rowe / Bob Marsh', ['Ann|Rowe', 'Bob|Marsh']],
    ['María y José Pérez', ['María|Pérez', 'José|Pérez']],
    ['Smith John & Mary', ['John|Smith', 'Mary|Smith'], true],
    ['Ana & Luis', ['Ana|', 'Luis|']],
    ['José Ortega y Gasset', null],
    ['Ann Rowe', null],
    ['Ann & Bob & Cy Rowe', null],
]);

it('makes two guardians of a couple, each with an address where there are two', function (): void {
    $guardians = fn(string $cells, array $said = []): array => array_map(
        fn(GuardianLine $g): string => "{$g->name->given}|{$g->name->family} $g->email",
        Lists::contents("Name,Grade,Parents,Parent email\n\"Quill, Ada\",3,$cells\n", $said)->students[0]->guardians,
    );
    expect($guardians('"Wu, Lin and Mei",lin@x.example; mei@x.example'))
        ->toBe(['Lin|Wu lin@x.example', 'Mei|Wu mei@x.example'])
        ->and($guardians('John & Mary Quill,john@x.example'))
        ->toBe(['John|Quill john@x.example', 'Mary|Quill '])
        ->and($guardians('Mr. & Mrs. Peter Quill,quill@x.example'))
        ->toBe(['Peter|Quill quill@x.example'])
        // Kept as written, it is one name again.
        ->and($guardians('John & Mary Quill,john@x.example', ['keep.t0.c2' => 'yes']))
        ->toBe(['John & Mary|Quill john@x.example']);
    $row = Lists::contents("Name,Grade,Parents\n\"Quill, Ada\",3,Ann Rowe & Bob\n")->students[0];
    expect($row->problems[0]->message)->toContain('may name two people')->and($row->problems[0]->stops)->toBeFalse();
});

it('tells students from staff in one list by the column of roles', function (): void {
    $list =
        "Name,Email,Role\n\"Quill, Ada\",ada@x.example,Student\n\"Wu, Kai\",kai@x.example,Student\n" .
        "\"Vale, Bo\",bo@x.example,Teacher\n\"Rowe, Tim\",tim@x.example,Parent\n";
    $contents = Lists::contents($list);
    expect(broughtIn($list))
        ->toBe([2, 3])
        ->and(array_map(fn($l): string => "$l->number $l->role", $contents->staff))
        ->toBe(['4 lead'])
        ->and($contents->warnings)
        ->toBe(['Row 5 is of a guardian and does not say of which student; it is left out.']);
});

it('takes teachers for the people of a list that names no others', function (string $list, ListKind $kind): void {
    expect(Lists::layout($list)->kind)->toBe($kind);
})->with([
    ["Teacher,Email,Phone\n\"Quill, Ada\",ada@x.example,202-555-0100\n", ListKind::Staff],
    ["Teacher Name,Email,Room\n\"Quill, Ada\",ada@x.example,12\n", ListKind::Staff],
    ["Homeroom,Teacher,Email\n3 Heron,\"Quill, Ada\",ada@x.example\n", ListKind::Sections],
    ["Name,Teacher,Grade\n\"Quill, Ada\",\"Vale, Amy\",3\n", ListKind::Students],
]);

it('asks before it makes staff of people with numbers or grades', function (): void {
    $list = "Staff name,Email,Student ID\n\"Quill, Ada\",ada@x.example,020101\n\"Wu, Kai\",kai@x.example,020102\n";
    $asked = fn(array $said): array => array_column(Lists::contents($list, $said)->questions, 'id');
    expect($asked([]))
        ->toBe(['t0.kind'])
        ->and($asked(['t0.kind' => 'students']))
        ->toBe([])
        ->and(broughtIn($list, ['t0.kind' => 'students']))
        ->toBe([2, 3]);
});
