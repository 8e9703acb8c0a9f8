<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Matching\JaroWinkler;
use Vantrel\Core\Matching\Soundex;

/**
 * Jaro's comparator as it is put in words, worked out by lists instead of places: letters in common no further apart
 * than half the longer name less one, each used once, and half of those out of turn.
 */
function jaroInWords(string $a, string $b): float
{
    if ($a === '' || $b === '') {
        return 0.0;
    }
    $letters = array_map(null, array_keys(str_split($b)), str_split($b));
    $reach = max(0, (int) floor(max(strlen($a), strlen($b)) / 2) - 1);
    $first = $second = [];
    foreach (str_split($a) as $i => $letter) {
        foreach ($letters as $key => [$j, $other]) {
            if ($letter === $other && abs($i - $j) <= $reach) {
                $first[] = $letter;
                $second[$j] = $letter;
                unset($letters[$key]);
                break;
            }
        }
    }
    ksort($second);
    $common = count($first);
    if ($common === 0) {
        return 0.0;
    }
    $outOfTurn = count(array_filter(array_map(fn(string $x, string $y): bool => $x !== $y, $first, $second)));

    return ($common / strlen($a) + $common / strlen($b) + ($common - floor($outOfTurn / 2)) / $common) / 3;
}

it('is the comparator the words describe, on names of every length', function (): void {
    $random = new KeyedStream(str_repeat('k', 32), 'names alike');
    $name = function (int $least) use ($random): string {
        $name = '';
        for ($n = $least + $random->below(9); $n > 0; $n--) {
            $name .= 'abcd'[$random->below(4)];
        }

        return $name;
    };
    for ($round = 0; $round < 3000; $round++) {
        [$a, $b] = [$name(0), $name(0)];
        if ($round % 3 === 0) {
            $b = substr($a, 0, 1 + $random->below(6)) . $b;
        }
        $jaro = jaroInWords($a, $b);
        $start = 0;
        foreach (array_slice(str_split($a), 0, 4) as $i => $letter) {
            if ($letter === '' || ($b[$i] ?? '') !== $letter) {
                break;
            }
            $start++;
        }
        expect(JaroWinkler::similarity($a, $b))->toEqualWithDelta($jaro + $start * 0.1 * (1 - $jaro), 1e-12, "$a $b");
    }
    expect(JaroWinkler::similarity('', ''))
        ->toBe(0.0)
        ->and(JaroWinkler::similarity('noor', 'noor'))
        ->toBe(1.0)
        ->and(JaroWinkler::similarity('noor', ''))
        ->toBe(0.0)
        ->and(JaroWinkler::similarity('', 'noor'))
        ->toBe(0.0);
});

it('codes the sounds of what is no plain name too', function (string $name, string $code): void {
    expect(Soundex::of($name))->toBe($code)->and(Soundex::of($name))->toBe($code);
})->with([
    ['', ''],
    ["1'-", ''],
    ['a', 'A000'],
    ["O'Brien", 'O165'],
    ['NOOR', 'N600'],
    ['Bob', 'B100'],
    ['Bbob', 'B100'],
    ['Hhm', 'H500'],
    ['Cachsk', 'C200'],
    ['Cacask', 'C220'],
    ['Robertson', 'R163'],
]);
