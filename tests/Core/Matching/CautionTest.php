<?php

declare(strict_types=1);

use Vantrel\Core\Matching\Caution;

/**
 * "given differs; birth date alike" and so on.
 *
 * @return array<string, string>
 */
function levelsIn(string $words): array
{
    $levels = [];
    foreach (array_filter(explode('; ', $words)) as $word) {
        [$field, $level] = explode(': ', $word);
        $levels[
            ['given' => 'given name', 'family' => 'family name', 'number' => 'student number'][$field] ?? $field
        ] = $level;
    }

    return $levels;
}

it('takes another given name for another child, unless the number or the own address says otherwise', function (
    string $levels,
    bool $another,
): void {
    expect(Caution::isAnother(levelsIn($levels)))->toBe($another);
})->with([
    ['', false],
    ['given: differs', true],
    ['given: akin', false],
    ['given: alike', false],
    ['given initial: differs', true],
    ['given initial: initial only', false],
    // The name itself counts before its initial.
    ['given: alike; given initial: differs', false],
    ['given: differs; given initial: initial only', true],
    ['given: differs; number: alike', false],
    ['given: differs; number: differs', true],
    ['given: differs; e-mail: alike', false],
    ['given: differs; e-mail: same local part', true],
    ['family: differs', false],
]);

it('says why a person has to look', function (string $levels, string $why): void {
    expect(Caution::of(levelsIn($levels)))->toBe($why);
})->with([
    ['', ''],
    ['given: alike; family: alike', ''],
    ['given: differs', 'the given name is another'],
    ['given initial: differs', 'the given name is another'],
    ['given initial: initial only', ''],
    ['given: differs; number: alike', 'the given name is another'],
    ['given: akin', 'the given name is another'],
    ['given: akin; birth date: alike', 'a twin, or the same child by another name'],
    ['given: akin; birth date: turned', 'the given name is another'],
    ['given: akin; birth date: alike; number: alike', ''],
    ['given: akin; birth date: alike; e-mail: alike', ''],
    ['given: akin; number: differs', 'the given name is another'],
    ['given: akin; e-mail: differs', 'the given name is another'],
    ['given: alike; family: differs', 'the family name is another'],
    ['given: alike; family: differs; number: alike', ''],
    ['given: alike; family: differs; e-mail: alike', ''],
    ['given: alike; family: near', ''],
    ['given: alike; family: alike; number: differs', 'same name, another number'],
    ['given: alike; family: alike; number: one digit', 'same name, another number'],
    ['given: alike; family: alike; number: one digit; e-mail: alike', 'same name, another number'],
    ['given: alike; family: alike; number: differs, elsewhere', ''],
    ['given: alike; family: alike; birth date: differs', 'same name, another birth date'],
    ['given: alike; family: alike; birth date: differs; number: alike', ''],
    ['given: alike; family: alike; birth date: differs; e-mail: alike', ''],
    ['given: alike; family: alike; birth date: same year', 'same name, another birth date'],
    ['given: alike; family: alike; birth date: another year', 'same name, another birth date'],
    ['given: alike; family: alike; birth date: same year; number: alike', ''],
    ['given: alike; family: alike; birth date: same year; e-mail: alike', ''],
    ['given: alike; family: alike; birth date: same year; e-mail: alike, claimed', 'same name, another birth date'],
    ['given: alike; family: alike; birth date: one digit', ''],
    [
        'given: alike; family: alike; birth date: one digit; guardian contact: differs',
        'same name, a birth date that is near, and another guardian',
    ],
    ['given: alike; family: alike; birth date: turned; guardian contact: differs; number: alike', ''],
    ['given: alike; family: alike; birth date: alike; guardian contact: differs', ''],
    [
        'given: other form; family: alike; birth date: alike; guardian contact: differs',
        'another form of the name, and another guardian',
    ],
    ['given: other form; family: alike; birth date: alike; guardian contact: same name', ''],
    ['given: other form; family: alike; guardian contact: differs; number: alike', ''],
    ['family: differs; number: differs', 'the family name is another'],
]);

it('names the kinship of those who are alike and yet another', function (
    string $levels,
    bool $sibling,
    string $word,
): void {
    expect(Caution::relation(levelsIn($levels), $sibling))->toBe($word);
})->with([
    ['', true, ''],
    ['given: differs; family: alike', true, 'a brother or sister'],
    ['given: differs; family: alike', false, ''],
    ['given: differs; family: alike; birth date: alike', false, 'a twin'],
    ['given: differs; family: alike; birth date: alike', true, 'a twin'],
    ['given: differs; family: alike; guardian contact: alike', false, 'a brother or sister'],
    ['given: differs; family: alike; guardian contact: same name', false, ''],
    ['given: differs; family: alike; birth date: one digit', true, 'a brother or sister'],
    ['given: differs; family: near; birth date: alike', true, ''],
    ['given: differs; family: differs', true, ''],
    ['given: differs', true, ''],
    ['given: near; family: alike', true, ''],
    ['family: alike; birth date: differs', true, ''],
    ['given: alike; birth date: differs', true, ''],
    ['given: alike; family: alike', true, ''],
    ['given: alike; family: alike; birth date: differs', true, 'a namesake, birth date differs'],
    ['given: alike; family: alike; birth date: same year', true, 'a namesake, birth date differs'],
    ['given: alike; family: alike; birth date: turned', true, ''],
    ['given: alike; family: alike; number: differs', false, 'a namesake, student number differs'],
    ['given: alike; family: alike; grade: differs', false, 'a namesake, grade differs'],
    [
        'given: alike; family: alike; number: differs; grade: differs',
        false,
        'a namesake, student number and grade differ',
    ],
    [
        'given: alike; family: alike; birth date: differs; number: differs; grade: differs',
        false,
        'a namesake, birth date and student number differ',
    ],
]);
