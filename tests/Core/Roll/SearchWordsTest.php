<?php

declare(strict_types=1);

use Vantrel\Core\Roll\SearchWords;
use Vantrel\Core\Roll\WordFit;

it('finds somebody by each word of the names, joined too, and by number, addresses and telephone', function (): void {
    expect(
        SearchWords::of(['Anne Marie', 'de la Cruz'], '020417', 'Noor.Castell@lanternfield.example', '+346005550123', [
            'anne.delacruz2',
        ]),
    )
        ->toBe([
            'anne',
            'marie',
            'annemarie',
            'de',
            'la',
            'cruz',
            'delacruz',
            '020417',
            '20417',
            'noor.castell@lanternfield.example',
            'noor',
            'castell',
            '@lanternfield.example',
            'delacruz2',
            '346005550123',
            '5550123',
        ])
        ->and(SearchWords::of(['', ''], '', '', '', []))
        ->toBe([])
        ->and(SearchWords::of([str_repeat('a', 80)], '', '', '12', []))
        ->toBe([str_repeat('a', 60)]);
});

it('reads what is typed in the same words', function (string $typed, array $words): void {
    expect(SearchWords::typed($typed))->toBe($words);
})->with([
    ['  Żuł  mat ', ['zul', 'mat']],
    ['Castell, Noor', ['castell', 'noor']],
    ["o'dwyer", ['odwyer']],
    ['noor.h@', ['noor.h@']],
    ['Noor.H@Lanternfield.example', ['noor.h@lanternfield.example']],
    ['020417', ['020417']],
    ['020417 020418', ['020417', '020418']],
    ['12 34', ['12', '34']],
    ['600 555 0123', ['6005550123']],
    ['(202) 555-0123', ['2025550123']],
    ['+34 600 555-0123', ['346005550123']],
    ['noor noor', ['noor']],
    ['%', []],
    ['', []],
    ['王小明', ['wang', 'xiao', 'ming']],
]);

it('has a key in common for every slip of one letter', function (): void {
    $alike = fn(string $a, string $b): bool => array_intersect(SearchWords::keys($a), SearchWords::keys($b)) !== [];
    foreach (['haddad', 'castell', 'kowalczyk', 'ines', '020417'] as $word) {
        for ($i = 0; $i < strlen($word); $i++) {
            expect($alike($word, substr($word, 0, $i) . substr($word, $i + 1)))
                ->toBeTrue()
                ->and($alike($word, substr($word, 0, $i) . 'x' . substr($word, $i)))
                ->toBeTrue()
                ->and($alike($word, substr_replace($word, 'x', $i, 1)))
                ->toBeTrue();
            if ($i > 0) {
                $turned = $word;
                [$turned[$i - 1], $turned[$i]] = [$word[$i], $word[$i - 1]];
                expect($alike($word, $turned))->toBeTrue();
            }
        }
    }
    // By another form, by the sound, by another rule of romanising.
    expect($alike('bob', 'robert'))
        ->toBeTrue()
        ->and($alike('rupert', 'robert'))
        ->toBeTrue()
        ->and($alike('shevchuk', 'sevcuk'))
        ->toBeTrue()
        ->and($alike('haddad', 'castell'))
        ->toBeFalse()
        // Of a short word every other one is a slip.
        ->and($alike('abc', 'abd'))
        ->toBeFalse();
});

it('says how well a word fits what is typed: the same, a beginning, a form, a slip, or not', function (): void {
    $fits = fn(string $typed, string ...$words): array => array_map(
        fn(string $word): float => WordFit::of($typed, $word),
        $words,
    );
    $order = $fits('robert', 'robert', 'roberts', 'robertson', 'robrt', 'bob', 'haddad');
    $sorted = $order;
    rsort($sorted);
    expect($order)
        ->toBe($sorted)
        ->and($order[0])
        ->toBe(1.0)
        ->and(end($order))
        ->toBe(0.0)
        ->and($order[3])
        ->toBeGreaterThanOrEqual(WordFit::LEAST)
        ->and($fits('r', 'robert', 'erik'))
        ->toEqual([0.9 + 0.015, 0.0])
        ->and($fits('noor@a.example', 'noor@b.example'))
        ->toBe([0.0])
        ->and($fits('abc', 'abd', 'xyz'))
        ->toEqual([WordFit::of('abc', 'abd'), 0.0]);
});
