<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Tests\Support\OddLists\OddLists;
use Tests\Support\Unaccounted;
use Vantrel\Core\Intake\PicturedCell;
use Vantrel\Core\Intake\PicturedRow;
use Vantrel\Core\Intake\SchoolFacts;
use Vantrel\Core\Intake\SheetPicture;
use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Sheet;

/** Marks of a cell's fate in the drawings below: nothing is made of it, mended, asked, heading, as above. */
const SIGNS = ['left' => '-', 'mended' => '~', 'asked' => '?', 'says' => ':', 'above' => '^'];

/**
 * @param  array<string, string>  $said
 * @return list<string> a row each: number, what it is, its cells with their marks, what was understood
 */
function drawn(string|Grid $list, array $said = []): array
{
    $grid = is_string($list) ? DelimitedText::grid($list) : $list;
    $book = Lists::book([new Sheet('', $grid)], $said);

    return array_map(
        fn(PicturedRow $r): string => trim(
            "$r->number {$r->part->value} | " .
                implode(
                    ' | ',
                    array_map(fn(PicturedCell $c): string => (SIGNS[$c->fate->value] ?? '') . $c->text, $r->cells),
                ) .
                ' => ' .
                implode(' + ', $r->read),
            ' =>',
        ),
        iterator_to_array(SheetPicture::rows($book, 0), false),
    );
}

it('draws the reading over the sheet', function (string $list, array $rows): void {
    expect(drawn($list))->toBe($rows);
})->with([
    'a title, a total, a column of no use' => [
        "Class list,,,\nNo,Name,Grade,Locker\n1,\"QUILL, ADA\",3,L1\n2,\"Wu, Kai\",n/a,L2\nTotal,2,,\n",
        [
            '1 title | -Class list |  |  |',
            '2 header | -No | :Name | :Grade | -Locker',
            '3 row | -1 | ~QUILL, ADA | 3 | -L1 => Ada | Quill, grade 3',
            '4 row | -2 | Wu, Kai | -n/a | -L2 => Kai | Wu',
            '5 total | -Total | -2 |  |',
        ],
    ],
    'lists side by side' => [
        "3A,,,3B,\nName,Grade,,Name,Grade\n\"Quill, Ada\",3,,\"Wu, Kai\",3\n\"Vale, Bo\",3,,,\n",
        [
            '1 heading | :3A |  |  | :3B |',
            '2 header | :Name | :Grade |  | :Name | :Grade',
            '3 row | Quill, Ada | 3 |  | Wu, Kai | 3 => Ada | Quill, grade 3, in 3A + Kai | Wu, grade 3, in 3B',
            '4 row | Vale, Bo | 3 |  |  |  => Bo | Vale, grade 3, in 3A',
        ],
    ],
    'blocks under each other' => [
        "Homeroom: 3A,\nName,Grade\n\"Quill, Ada\",3\nHomeroom: 3B,\nName,Grade\n\"Wu, Kai\",3\n",
        [
            '1 heading | :Homeroom: 3A |',
            '2 header | :Name | :Grade',
            '3 row | Quill, Ada | 3 => Ada | Quill, grade 3, in 3A',
            '4 heading | :Homeroom: 3B |',
            '5 repeated | -Name | -Grade',
            '6 row | Wu, Kai | 3 => Kai | Wu, grade 3, in 3B',
        ],
    ],
    'a header of two rows, a second guardian below, ditto marks' => [
        "Student,,Parent,\nName,Grade,Name,Email\n\"Quill, Ada\",3,Ann Quill,ann@x.example\n,,Bo Quill,bo@x.example\n\"Wu, Kai\",ditto,,\n",
        [
            '1 groups | :Student |  | :Parent |',
            '2 header | :Name | :Grade | :Name | :Email',
            '3 row | Quill, Ada | 3 | Ann Quill | ann@x.example => Ada | Quill, grade 3, guardian Ann | Quill ann@x.example',
            '4 row | ^ | ^ | Bo Quill | bo@x.example => Ada | Quill, grade 3, guardian Bo | Quill bo@x.example',
            '5 row | Wu, Kai | ~ditto |  |  => Kai | Wu, grade 3',
        ],
    ],
    'what cannot be read, and a row of nobody' => [
        "Name,Grade,Born\n\"Quill, Ada\",seventeen,2015-02-31\n,4,\n",
        [
            '1 header | :Name | :Grade | :Born',
            '2 row | Quill, Ada | ?seventeen | ?2015-02-31 => Ada | Quill',
            '3 text |  | -4 |',
        ],
    ],
]);

it('follows what a person says of a band', function (string $list, array $said, array $rows): void {
    expect(drawn($list, $said))->toBe($rows);
})->with([
    'this is the header' => [
        "Name,Grade\nPupil,Year group\n\"Quill, Ada\",3\n",
        ['s0.header' => '2'],
        [
            '1 title | -Name | -Grade',
            '2 header | :Pupil | :Year group',
            '3 row | Quill, Ada | 3 => Ada | Quill, grade 3',
        ],
    ],
    'there is no header' => [
        "\"Day, Name\",3\n\"Quill, Ada\",3\n\"Wu, Kai\",4\n",
        ['s0.header' => '0'],
        [
            '1 row | Day, Name | 3 => Name | Day, grade 3',
            '2 row | Quill, Ada | 3 => Ada | Quill, grade 3',
            '3 row | Wu, Kai | 4 => Kai | Wu, grade 4',
        ],
    ],
    'leave these out, read that one' => [
        "Name,Grade\n\"Quill, Ada\",3\n\"Wu, Kai\",4\nTotal,2\n",
        ['s0.r2' => 'skip', 's0.r4' => 'row'],
        [
            '1 header | :Name | :Grade',
            '2 skipped | -Quill, Ada | -3',
            '3 row | Wu, Kai | 4 => Kai | Wu, grade 4',
            '4 row | Total | 2 => Total, grade 2',
        ],
    ],
    'another list begins here' => [
        "Name,Grade,Pupil,Year\n\"Quill, Ada\",3,\"Wu, Kai\",4\n",
        ['s0.beside' => '2'],
        [
            '1 header | :Name | :Grade | :Pupil | :Year',
            '2 row | Quill, Ada | 3 | Wu, Kai | 4 => Ada | Quill, grade 3 + Kai | Wu, grade 4',
        ],
    ],
    'it is one list' => [
        "Name,Phone,Name,Phone\nAda Quill,+1 202 555 0100,Ann Quill,+1 202 555 0101\n",
        ['s0.beside' => '-', 't0.c2' => 'guardian_name', 't0.c3' => 'guardian_phone', 't0.c1' => '-'],
        [
            '1 header | :Name | -Phone | :Name | :Phone',
            '2 row | Ada Quill | -+1 202 555 0100 | Ann Quill | +1 202 555 0101 => Ada | Quill, guardian Ann | Quill +12025550101',
        ],
    ],
]);

it('asks whether hidden rows belong to the list, and does as it is told', function (): void {
    $grid = Grid::of([
        new Line(1, ['Name', 'Grade']),
        new Line(2, ['Quill, Ada', '3']),
        new Line(3, ['Wu, Kai', '4'], hidden: true),
        new Line(4, ['Vale, Bo', '4']),
    ]);
    $asked = fn(array $said): array => array_column(
        Lists::book([new Sheet('', $grid)], $said)->contents->questions,
        'id',
    );
    expect($asked([]))
        ->toBe(['s0.hidden'])
        ->and(drawn($grid)[2])
        ->toBe('3 hidden | -Wu, Kai | -4')
        ->and($asked(['s0.hidden' => 'take']))
        ->toBe([])
        ->and(drawn($grid, ['s0.hidden' => 'take'])[2])
        ->toBe('3 row | Wu, Kai | 4 => Kai | Wu, grade 4')
        ->and($asked(['s0.hidden' => 'leave']))
        ->toBe([])
        ->and(drawn($grid, ['s0.r3' => 'row'])[2])
        ->toBe('3 row | Wu, Kai | 4 => Kai | Wu, grade 4');
});

it('accounts for every cell of lists in odd shapes', function (): void {
    $wrong = [];
    foreach (range(9001, 9200) as $seed) {
        $list = OddLists::draw($seed);
        $book = Lists::book([$list->sheet()], [], new SchoolFacts('Lanternfield Elementary', 'lanternfield', 'US'));
        $wrong = [...$wrong, ...Unaccounted::of($book, "seed $seed (" . implode(', ', $list->drawn) . ')')];
    }
    expect(array_slice($wrong, 0, 10))->toBe([]);
});
