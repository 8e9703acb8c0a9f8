<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * Jaro's string comparator with Winkler's bonus for a common prefix (Winkler 1990), prefix scale 0.1, up to 4 letters.
 */
final class JaroWinkler
{
    private const PREFIX_SCALE = 0.1;

    /**
     * From 0, nothing alike, to 1, the same. Bytes are letters: give it plain names
     * ({@see \Vantrel\Core\Names\NameKey}).
     */
    public static function similarity(string $a, string $b): float
    {
        $jaro = self::jaro($a, $b);
        $prefix = 0;
        $longest = min(4, strlen($a), strlen($b));
        while ($prefix < $longest && $a[$prefix] === $b[$prefix]) {
            $prefix++;
        }

        return $jaro + $prefix * self::PREFIX_SCALE * (1 - $jaro);
    }

    private static function jaro(string $a, string $b): float
    {
        if ($a === $b) {
            return $a === '' ? 0.0 : 1.0;
        }
        $la = strlen($a);
        $lb = strlen($b);
        if ($la === 0 || $lb === 0) {
            return 0.0;
        }
        $window = max(0, intdiv(max($la, $lb), 2) - 1);
        $taken = str_repeat('0', $lb);
        $matchedA = '';
        for ($i = 0; $i < $la; $i++) {
            $to = min($lb - 1, $i + $window);
            for ($j = max(0, $i - $window); $j <= $to; $j++) {
                if ($taken[$j] === '0' && $a[$i] === $b[$j]) {
                    $taken[$j] = '1';
                    $matchedA .= $a[$i];
                    break;
                }
            }
        }
        $m = strlen($matchedA);
        if ($m === 0) {
            return 0.0;
        }
        $matchedB = '';
        for ($j = 0; $j < $lb; $j++) {
            if ($taken[$j] === '1') {
                $matchedB .= $b[$j];
            }
        }
        $half = 0;
        for ($k = 0; $k < $m; $k++) {
            $half += $matchedA[$k] === $matchedB[$k] ? 0 : 1;
        }

        return ($m / $la + $m / $lb + ($m - intdiv($half, 2)) / $m) / 3;
    }
}
