<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Table\Assignment;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\DelimitedText;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Grid;
use Vantrel\Core\Table\Lettering;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\Mojibake;
use Vantrel\Core\Table\UnreadableList;

/** @return list<StudentLine> */
function students(string $csv): array
{
    $grid = DelimitedText::grid($csv);

    return Lists::contents($grid)->students;
}

it('reads the same list in every encoding', function (string $encoding, string $mark): void {
    $text = "Name;Grade\r\nJosé Núñez;5\r\nLéa Marchetti;4\r\n";
    $grid = DelimitedText::grid(Lettering::read($mark . mb_convert_encoding($text, $encoding, 'UTF-8'))->text);
    expect($grid->lines[1]->cells)
        ->toBe(['José Núñez', '5'])
        ->and($grid->lines[2]->cells)
        ->toBe(['Léa Marchetti', '4']);
})->with([
    ['UTF-8', ''],
    ['UTF-8', "\xEF\xBB\xBF"],
    ['UTF-16LE', "\xFF\xFE"],
    ['UTF-16BE', "\xFE\xFF"],
    ['UTF-16LE', ''],
    ['UTF-16BE', ''],
    ['Windows-1252', ''],
]);

it('undoes double encoding only where the tell-tale pairs are', function (): void {
    $double = mb_convert_encoding(mb_convert_encoding('José', 'UTF-8', 'UTF-8'), 'UTF-8', 'Windows-1252');
    expect(Mojibake::mend($double))
        ->toBe('José')
        ->and(Mojibake::mend('Ångström Ñandú São'))
        ->toBe('Ångström Ñandú São');
});

it('finds the delimiter that gives the steadiest columns', function (string $text, string $delimiter): void {
    expect(DelimitedText::delimiter($text))->toBe($delimiter);
})->with([
    ["a,b,c\n1,2,3\n", ','],
    ["a;b\n1,5;2\n3,5;4\n", ';'],
    ["a\tb\n1, 2\t3\n", "\t"],
    ["a|b|c\nx, y|2|3\n", '|'],
    ["Name\nHaddad, Noor\nKai Wu\nMei Chen\n", "\x1F"],
    ["Name;Note\n\"a,b\";\"c,d,e\"\n\"f\";g\n", ';'],
]);

it('keeps quoted line breaks and doubled quotes in their cell, and counts lines as the file does', function (): void {
    $grid = DelimitedText::grid("Name,Note\n\"Haddad, Noor\",\"two\nlines and a \"\"word\"\"\"\nWu,x\n");
    expect($grid->lines[1]->cells)
        ->toBe(['Haddad, Noor', "two\nlines and a \"word\""])
        ->and($grid->lines[2]->number)
        ->toBe(4);
});

it('loses no rows after a quote that is never closed', function (): void {
    $grid = DelimitedText::grid(
        "Name,Note\n\"Haddad,x\n" . implode("\n", array_map(fn(int $i): string => "Wu $i,y", range(1, 60))) . "\n",
    );
    expect(count($grid->lines))->toBeGreaterThan(38);
});

it('assigns columns as brute force does', function (): void {
    mt_srand(11);
    for ($round = 0; $round < 300; $round++) {
        $rows = mt_rand(1, 5);
        $columns = mt_rand(1, 5);
        $scores = array_map(
            fn(): array => array_map(fn(): float => mt_rand(0, 20) / 10, range(1, $columns)),
            range(1, $rows),
        );
        $best = function (int $row, array $used) use (&$best, $scores, $rows, $columns): float {
            if ($row === $rows) {
                return 0.0;
            }
            $most = $best($row + 1, $used);
            for ($c = 0; $c < $columns; $c++) {
                if (!isset($used[$c])) {
                    $most = max($most, $scores[$row][$c] + $best($row + 1, $used + [$c => true]));
                }
            }

            return $most;
        };
        $found = Assignment::best($scores);
        $taken = array_filter($found, fn(?int $c): bool => $c !== null);
        expect(count(array_unique($taken)))->toBe(count($taken));
        $total = array_sum(
            array_map(fn(int $r): float => $found[$r] === null ? 0.0 : $scores[$r][$found[$r]], array_keys($found)),
        );
        expect($total)->toEqualWithDelta($best(0, []), 1e-9);
    }
});

it('finds the header under titles and names the columns', function (): void {
    $grid = DelimitedText::grid(
        "Fall list,,,,\nprinted 21 August,,,,\nStudent no.,Last name,First name,Gr.,Parent e-mail\n" .
            "020417,Haddad,Noor,5,a@b.example\n",
    );
    $layout = Lists::layout($grid);
    expect($layout->headerRow)
        ->toBe(3)
        ->and(array_map(fn(Column $c): ?Field => $c->field, $layout->columns))
        ->toBe([Field::StudentNumber, Field::FamilyName, Field::GivenName, Field::Grade, Field::GuardianEmail]);
});

it('understands headings of other languages', function (): void {
    $layout = Lists::layout("Nombre;Apellidos;Grado;Fecha de nacimiento\nSofía;Ortiz Reyes;4;2016-03-08\n");
    expect(array_map(fn(Column $c): ?Field => $c->field, $layout->columns))->toBe([
        Field::GivenName,
        Field::FamilyName,
        Field::Grade,
        Field::BirthDate,
    ]);
    $layout = Lists::layout("Prénom;Nom;Niveau\nLéa;Marchetti;4\n");
    expect(array_map(fn(Column $c): ?Field => $c->field, $layout->columns))->toBe([
        Field::GivenName,
        Field::FamilyName,
        Field::Grade,
    ]);
});

it('names columns by what is in them where there is no header', function (): void {
    $csv = '';
    for ($i = 1; $i <= 8; $i++) {
        $csv .=
            "0204$i$i," .
            ['Noor Haddad', 'Kai Wu', 'Mei Chen', 'Ada Rao', 'Bo Ek'][$i % 5] .
            ",2016-0$i-11,$i,g$i@shore.example\n";
    }
    $layout = Lists::layout($csv);
    expect($layout->headerRow)
        ->toBeNull()
        ->and(array_map(fn(Column $c): ?Field => $c->field, $layout->columns))
        ->toBe([Field::StudentNumber, Field::FullName, Field::BirthDate, Field::Grade, Field::Email]);
});

it('lets what a person says of a column stand', function (): void {
    $grid = DelimitedText::grid("Name,Class,Mail\nNoor Haddad,4 Tern,g@shore.example\n");
    $layout = Lists::layout($grid, ['t0.c1' => 'homeroom', 't0.c2' => 'guardian_email']);
    expect($layout->indexOf(Field::Homeroom))
        ->toBe(1)
        ->and($layout->indexOf(Field::GuardianEmail))
        ->toBe(2)
        ->and($layout->indexOf(Field::Section))
        ->toBeNull();
    expect(Lists::layout($grid, ['t0.c2' => '-'])->indexOf(Field::Email))->toBeNull();
});

it('says what to do about a list without names', function (): void {
    Lists::layout("a@b.example,c@d.example\ne@f.example,g@h.example\n");
})->throws(UnreadableList::class, 'Put a row above the list');

it('sees that names stand family first by the guardians beside them', function (): void {
    expect(Lists::layout("Name,Guardian\nHaddad Noor,Ann Haddad\nWu Kai,Mei Wu\n")->names->familyFirst)
        ->toBeTrue()
        ->and(Lists::layout("Name,Guardian\nNoor Haddad,Ann Haddad\nKai Wu,Mei Wu\n")->names->familyFirst)
        ->toBeFalse();
});

it('mends what spreadsheets break', function (): void {
    $lines = students(
        "Student no,Name,Grade,DOB\n417,Noor Haddad,5,23/04/2015\n20418,Kai Wu,5,03/04/2015\n" .
            "020419,Léa Le,5,42097\n020420,Uma Rao,5,\n020421,Ada Bo,5,\n020422,Bo Ek,5,\nTotal,6,,\n",
    );
    expect($lines[0]->studentNumber)
        ->toBe('000417')
        ->and($lines[1]->studentNumber)
        ->toBe('020418')
        ->and($lines[1]->birthDate)
        ->toBe('2015-04-03')
        ->and($lines[2]->birthDate)
        ->toBe('2015-04-03');
});

it('names the cell and the cure of what it cannot read', function (): void {
    $lines = students(
        "Student no,Name,Grade,DOB,Parent email\n1.2E+05,Noor Haddad,5,2015-04-03,\n" .
            ",Kai Wu,middle,03/04/2015,ann at x\n",
    );
    expect($lines[0]->problems[0]->column)
        ->toBe('Student no')
        ->and($lines[0]->problems[0]->message)
        ->toContain('as text');
    expect(array_map(fn($p): string => $p->column, $lines[1]->problems))
        ->toBe(['DOB', 'Grade', 'Parent email'])
        ->and($lines[1]->problems[0]->message)
        ->toContain('two ways');
});

it('reads several sections from one cell and two guardians from a row', function (): void {
    $line = students(
        "Name,Homeroom,Classes,Guardian 1,Guardian 1 email,Guardian 2,Guardian 2 email\n" .
            "Noor Haddad,4 Tern,Art 4; Music 4,Ann Haddad,a@x.example,Bo Haddad,b@x.example\n",
    )[0];
    expect($line->homeroom)
        ->toBe('4 Tern')
        ->and($line->sections)
        ->toBe(['Art 4', 'Music 4'])
        ->and($line->guardians)
        ->toHaveCount(2)
        ->and($line->guardians[1]->email)
        ->toBe('b@x.example');
});

it('keeps a formula cell out with a cure', function (): void {
    $grid = Grid::of([
        new Line(1, ['Name', 'Grade']),
        new Line(2, ['Noor Haddad', '5'], [1 => 'This cell holds a formula.']),
    ]);
    expect(Lists::contents($grid)->students[0]->problems[0])->column->toBe('Grade');
});

it('refuses nothing, and too much', function (): void {
    expect(fn() => Grid::of([]))
        ->toThrow(UnreadableList::class)
        ->and(fn() => Grid::of([new Line(1, array_fill(0, 200, 'x'))]))
        ->toThrow(UnreadableList::class, '200 columns')
        ->and(Grid::of([new Line(1, [...['Name'], ...array_fill(0, 300, '')])])->width)
        ->toBe(1);
});

it('looks for no cells in what is longer than a row or a cell of any list, and says where it stands', function (
    string $text,
    string $said,
): void {
    expect(fn() => DelimitedText::grid($text))->toThrow(UnreadableList::class, $said);
})->with([
    'a line' => ["Name,Grade\nAda,3\n" . str_repeat('a,', 300_000), 'Line 3 is longer than a row'],
    'a line in quotes' => ["Name\n\"" . str_repeat("a\n", 3) . str_repeat('b', 500_001) . '"', 'Line 2 is longer'],
    'a cell' => ["Name,Grade\n" . str_repeat('a', 131_069) . ',3', 'Row 2 holds more in one cell'],
]);

it('keeps a cell as long as any of a spreadsheet', function (): void {
    $grid = DelimitedText::grid("Name,Note\nAda," . str_repeat('é', 32_767));
    expect(mb_strlen($grid->lines[1]->cells[1]))->toBe(32_767);
});
