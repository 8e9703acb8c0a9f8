<?php

declare(strict_types=1);

use Vantrel\Core\Codes\ChosenCode;

/** @return list<string> why it is not safe, '' for each rule that holds, in the order of the rules */
function whyNot(string $wish, array $known = [], array $unfit = [], array $used = [], int $length = 6): array
{
    $judged = ChosenCode::judge($wish, $length, $used, $known, $unfit);
    foreach ($judged->rules as $rule) {
        expect($rule->holds)->toBe($rule->why === '', $rule->rule);
    }
    $why = array_column($judged->rules, 'why');
    expect($judged->safe())->toBe(implode('', $why) === '' && $judged->code !== null);

    return $why;
}

it('has seven rules, each in words', function (): void {
    expect(array_column(ChosenCode::judge('KDM4X7', 6, [])->rules, 'rule'))->toBe([
        'Exactly 6 symbols; one more is added as a check',
        'Only letters and figures that cannot be misread: BCDFGHJKMNPQRSTVWXZ3479',
        'At least four different symbols',
        'No run of four as in the alphabet or on a keyboard',
        'Nothing taken from the name of the section, its teacher or the school',
        'Nothing that could be read as rude',
        'Never used before',
    ]);
});

it('says of each rule why it does not hold', function (array $asked, int $rule, string $why): void {
    $expected = array_fill(0, 7, '');
    $expected[$rule] = $why;
    expect(whyNot(...$asked))->toBe($expected);
})->with([
    'too short' => [['wish' => 'KDM4X'], 0, 'This has 5.'],
    'too long' => [['wish' => 'KDM4X7R'], 0, 'This has 7.'],
    'signs it does not have, each once' => [['wish' => 'KAM4AÉ'], 1, 'Not “A”, “É”.'],
    'three different ones' => [['wish' => 'KDKDKM'], 2, 'Repeated symbols are tried first.'],
    'the alphabet' => [['wish' => 'XMBCDF'], 3, '“BCDF” is such a run.'],
    'its end' => [['wish' => 'XM3479'], 3, '“3479” is such a run.'],
    'backwards' => [['wish' => '9743XM'], 3, '“9743” is such a run.'],
    'a row of keys' => [['wish' => 'MQWRTX'], 3, '“QWRT” is such a run.'],
    'the end of a row' => [['wish' => 'KVBNMX'], 3, '“VBNM” is such a run.'],
    'a name without its vowels' => [['wish' => 'XKSTRM', 'known' => ['Kestrem']], 4, '“KSTR” comes from one of them.'],
    'the end of a name' => [
        ['wish' => 'XKSTRM', 'known' => ['Ann', 'A Kast Rim']],
        4,
        '“KSTR” comes from one of them.',
    ],
    'words run together' => [['wish' => 'XKSTRQ', 'known' => ['Ik Sit Ra']], 4, '“KSTR” comes from one of them.'],
    'a word as it is' => [['wish' => 'XGRMPK', 'unfit' => ['grmp']], 5, 'Choose another.'],
    'without its vowels' => [['wish' => 'XGRMPK', 'unfit' => ['groump']], 5, 'Choose another.'],
    'three letters of it' => [['wish' => 'XGRMKD', 'unfit' => ['grim']], 5, 'Choose another.'],
    'figures for letters' => [['wish' => 'XD34TM', 'unfit' => ['deat']], 5, 'Choose another.'],
    'seven for T, nine for G' => [['wish' => 'XR79KM', 'unfit' => ['rtg']], 5, 'Choose another.'],
]);

it('takes what breaks no rule, to the edge of each', function (array $asked): void {
    expect(whyNot(...$asked))->toBe(array_fill(0, 7, ''));
})->with([
    'four different ones' => [['wish' => 'KDMXKD']],
    'dashes, spaces, small letters' => [['wish' => " kdm\u{2013}4_x.7 "]],
    'a run of three' => [['wish' => 'BCDKXM']],
    'three letters of a name' => [['wish' => 'KSTXQM', 'known' => ['Kestrem', '']]],
    'a name that has only three such letters' => [['wish' => 'KSTXQM', 'known' => ['Kast']]],
    'two letters of a word' => [['wish' => 'XGRKDM', 'unfit' => ['ogre']]],
    'another code was used' => [['wish' => 'KDM4X7', 'used' => ['BBBBBBK' => true]]],
]);

it('does not say whether a section has a code or had it', function (): void {
    $code = ChosenCode::judge('KDM4X7', 6, [])->code;
    expect($code)->not->toBeNull();
    expect(whyNot('KDM4X7', used: [$code->symbols => true]))->toBe([...array_fill(0, 6, ''), 'Choose another.']);
});

it('gives a code as long as the school needs', function (): void {
    expect(ChosenCode::judge('kdm-4x7-r', 7, [])->code?->written())
        ->toBe('KDM4-X7R' . substr((string) ChosenCode::judge('KDM4X7R', 7, [])->code?->symbols, -1))
        ->and(ChosenCode::judge('', 6, [])->code)
        ->toBeNull()
        ->and(ChosenCode::judge("\xff\xfe", 6, [])->safe())
        ->toBeFalse();
});
