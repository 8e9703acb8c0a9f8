<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/** Error correction over GF(256) with the polynomial x^8 + x^4 + x^3 + x^2 + 1, as ISO/IEC 18004 takes it (7.5.2). */
final class ReedSolomon
{
    private const POLYNOMIAL = 0x11d;

    /** @var list<int> powers of two, twice round, so that a sum of two logarithms needs no remainder */
    private static array $power = [];

    /** @var array<int, int> */
    private static array $log = [];

    /** @var array<int, list<int>> logarithms of the generator's factors but the first, by degree */
    private static array $generators = [];

    /**
     * @param  list<int>  $data
     * @return list<int> so many codewords
     */
    public static function correction(array $data, int $count): array
    {
        $generator = self::generator($count);
        $log = self::$log;
        $power = self::$power;
        $rest = array_fill(0, $count, 0);
        foreach ($data as $word) {
            $factor = $word ^ array_shift($rest);
            $rest[] = 0;
            if ($factor !== 0) {
                $of = $log[$factor];
                foreach ($generator as $i => $coefficient) {
                    $rest[$i] ^= $power[$of + $coefficient];
                }
            }
        }

        return array_values($rest);
    }

    /** @return list<int> */
    private static function generator(int $degree): array
    {
        if (self::$power === []) {
            for ($i = 0, $x = 1; $i < 255; $i++) {
                self::$power[] = $x;
                self::$log[$x] = $i;
                $x <<= 1;
                $x = $x > 255 ? $x ^ self::POLYNOMIAL : $x;
            }
            self::$power = [...self::$power, ...self::$power];
        }
        if (!isset(self::$generators[$degree])) {
            // The product of (x - 2^i), the highest power first.
            $product = [1];
            for ($i = 0; $i < $degree; $i++) {
                $next = [...$product, 0];
                foreach ($product as $j => $coefficient) {
                    if ($coefficient !== 0) {
                        $next[$j + 1] ^= self::$power[self::$log[$coefficient] + $i];
                    }
                }
                $product = $next;
            }
            // No factor is 0 for the degrees in use (ISO/IEC 18004, annex A).
            self::$generators[$degree] = array_map(fn(int $c): int => self::$log[$c], array_slice($product, 1));
        }

        return self::$generators[$degree];
    }
}
