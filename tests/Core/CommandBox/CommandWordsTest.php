<?php

declare(strict_types=1);

use Vantrel\Core\Calendar\DayWords;
use Vantrel\Core\CommandBox\CommandWords;
use Vantrel\Core\CommandBox\Said;
use Vantrel\Core\CommandBox\Verb;

it('takes apart what is to be done', function (string $typed, Said $said): void {
    expect(CommandWords::read($typed, '2026-11-26'))->toEqual($said);
})->with([
    ['cards 7B', new Said(Verb::Cards, '7B')],
    ['  Print login CARDS  for Science 8A ', new Said(Verb::Cards, 'Science 8A')],
    ['cards', new Said(Verb::Cards)],
    ['code science 8A', new Said(Verb::Code, 'science 8A')],
    ['join code of 3 Heron', new Said(Verb::Code, '3 Heron')],
    ['move 020417 to 7C', new Said(Verb::Move, '020417', '7C')],
    ['move Corin Quill from 7B into 7C', new Said(Verb::Move, 'Corin Quill', '7C', '7B')],
    ['move 020417', new Said(Verb::Move, '020417')],
    ['Move', new Said(Verb::Move)],
    ['place José in Band', new Said(Verb::Place, 'José', 'Band')],
    ['put 7 into 8', new Said(Verb::Place, '7', '8')],
    ['enroll 020417', new Said(Verb::Place, '020417')],
    ['merge', new Said(Verb::Merge)],
    ['merge Corin Quill', new Said(Verb::Merge, 'Corin Quill')],
    ['merge 020417 020418', new Said(Verb::Merge, '020417', '020418')],
    ['merge Ana Sand and Anna Sand', new Said(Verb::Merge, 'Ana Sand', 'Anna Sand')],
    ['undo', new Said(Verb::Undo)],
    ['Undo last', new Said(Verb::Undo)],
    ['undo the last thing', new Said(Verb::Undo)],
    ['as of 1 sep', new Said(Verb::AsOf, day: '2026-09-01')],
    ['7B as of 1 sep', new Said(Verb::AsOf, '7B', day: '2026-09-01')],
    ['7B as of', new Said(Verb::AsOf, '7B')],
    ['7B as of sometime', new Said(Verb::AsOf, '7B', day: null)],
    ['archive 7B', new Said(Verb::Archive, '7B')],
]);

it('leaves names alone', function (string $typed): void {
    expect(CommandWords::read($typed, '2026-11-26'))->toBeNull();
})->with([
    '',
    'Corin Quill',
    'Undoro Sand',
    'Codette',
    'Mover',
    'Cardsen',
    '020417',
    'Archiver',
    'Merger',
    'Basil Asof',
]);

it('reads a day as it is said, the latest there was', function (string $said, ?string $day): void {
    // A Thursday.
    expect(DayWords::read($said, '2026-11-26'))->toBe($day);
})->with([
    ['1 sep', '2026-09-01'],
    ['Sep 1', '2026-09-01'],
    ['1st of September', '2026-09-01'],
    ['1 September 2025', '2025-09-01'],
    ['2025-09-01', '2025-09-01'],
    ['24 dec', '2025-12-24'],
    ['26 nov', '2026-11-26'],
    ['27 nov', '2025-11-27'],
    ['29 feb', '2024-02-29'],
    ['30 feb', null],
    ['today', '2026-11-26'],
    ['yesterday', '2026-11-25'],
    ['10 days ago', '2026-11-16'],
    ['thursday', '2026-11-26'],
    ['fri', '2026-11-20'],
    ['last monday', '2026-11-23'],
    ['1/9', null],
    ['13/9/2026', '2026-09-13'],
    ['3/9/2026', null],
    ['soon', null],
    ['', null],
]);

it('gives an example of every verb that reads as that verb, whole', function (): void {
    foreach (Verb::cases() as $verb) {
        $said = CommandWords::read($verb->example(), '2026-11-26');
        expect($said?->verb)->toBe($verb);
        if ($verb !== Verb::Undo) {
            expect($said?->what)->not->toBe('');
        }
    }
});
