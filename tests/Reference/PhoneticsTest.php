<?php

declare(strict_types=1);

// mutates: Matching

use Vantrel\Core\Matching\Soundex;
use Vantrel\Core\Matching\Weights;

// US National Archives, "Soundex System" (archives.gov/research/census/soundex): the names of its examples and their
// codes.
it('codes the names of the National Archives as they do', function (string $name, string $code): void {
    expect(Soundex::of($name))->toBe($code);
})->with([
    ['Washington', 'W252'],
    ['Lee', 'L000'],
    ['Gutierrez', 'G362'],
    ['Pfister', 'P236'],
    ['Jackson', 'J250'],
    ['Tymczak', 'T522'],
    ['VanDeusen', 'V532'],
    ['Ashcraft', 'A261'],
]);

/** @return list<string> */
function someNames(): array
{
    mt_srand(11);
    $names = [
        'washington',
        'lee',
        'pfister',
        'tymczak',
        'ashcraft',
        'haddad',
        'nwosu',
        'szczepanski',
        'whitcombe',
        'mcallister',
    ];
    for ($i = 0; $i < 2000; $i++) {
        $name = '';
        for ($n = mt_rand(2, 10); $n > 0; $n--) {
            $name .= chr(mt_rand(97, 122));
        }
        $names[] = $name;
    }

    return $names;
}

it('codes two thousand names as python3-jellyfish does', function (): void {
    $theirs = json_decode(
        outside(
            [
                '/usr/bin/python3',
                '-c',
                'import jellyfish,json,sys; print(json.dumps([jellyfish.soundex(n) for n in json.load(sys.stdin)]))',
            ],
            (string) json_encode(someNames()),
        ),
        true,
    );
    expect(array_map(Soundex::of(...), someNames()))->toBe($theirs);
});

it('codes two thousand names as libtext-soundex-perl does', function (): void {
    // soundex_nara is the rule of the National Archives: H and W do not part two letters of one code. It takes such
    // pairs by a pattern that cannot overlap, so a letter with H or W on both sides is left out here; python3-jellyfish
    // has those too.
    $names = array_values(
        array_filter(someNames(), fn(string $n): bool => preg_match('/[hw][^aeiouyhw][hw]/', $n) !== 1),
    );
    $theirs = explode(
        "\n",
        trim(
            outside(
                ['perl', '-MText::Soundex=soundex_nara', '-ne', 'chomp; print soundex_nara($_), "\n"'],
                implode("\n", $names),
            ),
        ),
    );
    expect(array_map(Soundex::of(...), $names))->toBe($theirs)->and(count($names))->toBeGreaterThan(1900);
});

it('weighs agreement as Fellegi and Sunter do', function (): void {
    // Fellegi and Sunter (1969), section 2: w = log(m/u). Worked here in bits for a field with m = 0.9: agreeing on a
    // value that one in a hundred has is log2(0.9 / 0.01) = 6.4919, as any calculator says.
    $weights = Weights::estimated(['given name' => ['alike' => 0.9]]);
    expect($weights->same('given name', 'alike', 0.01))
        ->toEqualWithDelta(6.4919, 0.0001)
        // Disagreeing, with m = 0.1 and u = 0.99 made of levels that add up to it, speaks against: log2(0.1 / 0.915) =
        // -3.1938.
        ->and(Weights::estimated(['given name' => ['differs' => 0.1]])->same('given name', 'differs'))
        ->toEqualWithDelta(-3.1938, 0.0001);
});

it('has m and u that add up to one over the levels of every field', function (): void {
    $weights = Weights::published();
    foreach (Weights::levels() as $field => $levels) {
        if ($field === 'names swapped') {
            continue;
        }
        // A school of one's own and another school are two readings of the same field.
        foreach (
            [
                array_filter($levels, fn(string $l): bool => !preg_match('/elsewhere|claimed/', $l)),
                array_filter($levels, fn(string $l): bool => str_contains($l, 'elsewhere')),
            ]
            as $some
        ) {
            if ($some !== []) {
                expect(array_sum(array_map(fn(string $l): float => $weights->m($field, $l), $some)))
                    ->toEqualWithDelta(1.0, 0.011, "m of $field")
                    ->and(array_sum(array_map(fn(string $l): float => $weights->u($field, $l), $some)))
                    ->toEqualWithDelta(1.0, 0.06, "u of $field");
            }
        }
    }
});
