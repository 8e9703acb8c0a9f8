<?php

declare(strict_types=1);

use Tests\Support\PlanText;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Sections\RenameWish;
use Vantrel\Core\Sections\Renaming;

/** @param  array<string, array<string, mixed>|string>  $sections id to name, or to more */
function renaming(string $words, string $instead, array $sections): Plan
{
    $rows = [];
    foreach ($sections as $id => $more) {
        $rows[$id] = new Section($id, 1, [
            'school_id' => 'school',
            'school_year_id' => 'year',
            'name' => '',
            'kind' => 'class',
            'state' => 'open',
            ...is_array($more) ? $more : ['name' => $more],
        ]);
    }

    return Renaming::plan(new Snapshot(['sections' => $rows]), new RenameWish('year', $words, $instead));
}

/** @return array<string, string> id to new name */
function newNames(Plan $plan): array
{
    $names = [];
    foreach ($plan->changes as $change) {
        $names[$change->id] = (string) $change->after['name'];
    }

    return $names;
}

it('renames a homeroom and all that is called after it, in this year and nowhere else', function (): void {
    $plan = renaming('3 Heron', '3 Plover', [
        'home' => ['name' => '3 Heron', 'kind' => 'homeroom'],
        'art' => '3 heron: Art 10',
        'music' => 'Music (3 Heron)',
        'big' => '13 Heron',
        'herons' => '3 Herons',
        'old' => ['name' => '3 Heron', 'state' => 'archived'],
        'next' => ['name' => '3 Heron', 'school_year_id' => 'next'],
        'nine' => '3 Heron: Art 9',
    ]);
    PlanText::mustBe($plan, __DIR__, 'renaming');
});

it('leaves a section whose name would be taken, twice, empty or too long, and says why', function (): void {
    PlanText::mustBe(
        renaming('Heron', 'Tern', [
            'a' => '3 Heron',
            'b' => '3 Tern',
            'c' => '4 Heron',
            'd' => '4 heron',
            'e' => '4 HERON',
        ]),
        __DIR__,
        'renaming-taken',
    );
    expect(newNames(renaming('Heron', '', ['a' => 'Heron', 'b' => 'Heron Art'])))
        ->toBe(['b' => 'Art'])
        ->and(newNames(renaming('x', str_repeat('y', 77), ['a' => 'x ab', 'b' => 'x abc'])))
        ->toBe(['a' => str_repeat('y', 77) . ' ab'])
        ->and(newNames(renaming('A', 'B', ['p' => 'A', 'q' => 'B'])))
        ->toBe([]);
});

it('takes what is typed as words, whatever signs are in it', function (
    string $words,
    string $instead,
    string $was,
    string $is,
): void {
    expect(newNames(renaming($words, $instead, ['a' => $was])))->toBe($was === $is ? [] : ['a' => $is]);
})->with([
    'a pattern is none' => ['3.A', '3 B', '3xA 3.A', '3xA 3 B'],
    'brackets' => ['(old)', '', 'Art (old)', 'Art'],
    'a dollar and a backslash' => ['Art', '$1 \\0', 'Art 1', '$1 \\0 1'],
    'accents are letters' => ['Art', 'X', 'Artè', 'Artè'],
    'other scripts' => ['клас', 'група', '3 клас', '3 група'],
    'spaces run together' => ["  3   Heron\t", ' 3  Tern ', '3 Heron', '3 Tern'],
    'the same again' => ['Art', 'Art', 'Art 1', 'Art 1'],
]);

it('asks for words to look for', function (): void {
    expect(fn() => new RenameWish('year', " \t", 'x'))->toThrow(Refusal::class, 'Type the words');
    $none = renaming('Owl', 'Tern', ['a' => '3 Heron']);
    expect($none->isEmpty())
        ->toBeTrue()
        ->and($none->sentence)
        ->toBe('No open section of this year has “Owl” in its name.');
});
