<?php

declare(strict_types=1);

// mutates: Matching

use Vantrel\Core\Matching\JaroWinkler;

// Values printed in Winkler (1990), "String Comparator Metrics and Enhanced Decision Rules in the Fellegi-Sunter Model
// of Record Linkage", to three decimals.
it('gives the values Winkler printed', function (string $a, string $b, float $value): void {
    expect(round(JaroWinkler::similarity($a, $b), 3))->toBe($value);
})->with([['MARTHA', 'MARHTA', 0.961], ['DWAYNE', 'DUANE', 0.84], ['DIXON', 'DICKSONX', 0.813]]);

it('agrees with python3-jellyfish and ruby-jaro-winkler on thousands of random pairs', function (): void {
    mt_srand(1990);
    $pairs = [];
    for ($i = 0; $i < 4000; $i++) {
        $a = '';
        for ($n = mt_rand(1, 12); $n > 0; $n--) {
            $a .= chr(97 + mt_rand(0, 7));
        }
        // Half of the pairs are slips of each other, the rest are unrelated.
        $b =
            $i % 2 === 0
                ? str_shuffle($a)
                : substr_replace($a, chr(97 + mt_rand(0, 7)), mt_rand(0, strlen($a) - 1), mt_rand(0, 2));
        $pairs[] = [$a, $b === '' ? 'q' : $b];
    }
    $lines = implode("\n", array_map(fn(array $p): string => implode(' ', $p), $pairs));
    $python = explode(
        "\n",
        trim(
            outside(
                [
                    '/usr/bin/python3',
                    '-c',
                    <<<'PY'
                    import sys, jellyfish
                    f = getattr(jellyfish, 'jaro_winkler_similarity', None) or jellyfish.jaro_winkler
                    for line in sys.stdin:
                        a, b = line.split()
                        print('%.9f' % f(a, b))
                    PY
                ,
                ],
                $lines,
            ),
        ),
    );
    $ruby = explode(
        "\n",
        trim(
            outside(
                [
                    '/usr/bin/ruby',
                    '-e',
                    <<<'RUBY'
                    require 'jaro_winkler'
                    STDIN.each_line do |l|
                      a, b = l.split
                      by = { weight: 0.1, threshold: 0.0 }
                      near = JaroWinkler.jaro_winkler_distance(a, b, **by) rescue JaroWinkler.distance(a, b, **by)
                      puts format('%.9f', near)
                    end
                    RUBY
                ,
                ],
                $lines,
            ),
        ),
    );
    expect($python)->toHaveCount(4000)->and($ruby)->toHaveCount(4000);
    foreach ($pairs as $i => [$a, $b]) {
        $ours = JaroWinkler::similarity($a, $b);
        expect(abs($ours - (float) $ruby[$i]))->toBeLessThan(1e-6, "ruby: $a $b");
        // jellyfish applies Winkler's bonus only above a Jaro value of 0.7, as Winkler's own program does.
        $prefix = 0;
        while ($prefix < min(4, strlen($a), strlen($b)) && $a[$prefix] === $b[$prefix]) {
            $prefix++;
        }
        $jaro = ($ours - $prefix * 0.1) / (1 - $prefix * 0.1);
        expect(abs(($jaro > 0.7 ? $ours : $jaro) - (float) $python[$i]))->toBeLessThan(1e-6, "jellyfish: $a $b");
    }
});
