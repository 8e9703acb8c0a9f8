<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/**
 * What is the same in all symbols of a version: the patterns that a camera finds, where the data goes, the eight masks.
 * Lines of modules are integers, the first module in the highest bit; by rows and, for the penalties, by columns too.
 */
final class QrFrame
{
    /** Where the alignment patterns stand, by version (annex E). */
    private const ALIGNED = [
        1 => [],
        [6, 18],
        [6, 22],
        [6, 26],
        [6, 30],
        [6, 34],
        [6, 22, 38],
        [6, 24, 42],
        [6, 26, 46],
        [6, 28, 50],
    ];

    public readonly int $size;

    private readonly int $full;

    /** @var array<int, int> dark modules of the patterns, by row */
    private array $rows;

    /** @var array<int, int> modules that hold no data, by row */
    private array $taken;

    /** @var list<array{int, int}> the column and the row of each bit of data, in order */
    private array $path = [];

    /** @var list<array{array<int, int>, array<int, int>}> masks with what is fixed, by rows, columns */
    private array $masks = [];

    public function __construct(int $version)
    {
        $this->size = 17 + 4 * $version;
        $this->full = (1 << $this->size) - 1;
        $this->rows = $this->taken = array_fill(0, $this->size, 0);
        $this->patterns($version);
        $this->path();
        for ($mask = 0; $mask < 8; $mask++) {
            $this->masks[] = $this->masked($mask);
        }
    }

    /**
     * The whole symbol, under the mask with the least penalty (7.8.3).
     *
     * @param  list<int>  $words codewords in their order
     * @return list<int> rows
     */
    public function with(array $words): array
    {
        $rows = $columns = array_fill(0, $this->size, 0);
        $at = 0;
        $last = $this->size - 1;
        foreach ($words as $word) {
            for ($bit = 7; $bit >= 0; $bit--, $at++) {
                if (($word >> $bit) & 1) {
                    [$x, $y] = $this->path[$at];
                    $rows[$y] |= 1 << ($last - $x);
                    $columns[$x] |= 1 << ($last - $y);
                }
            }
        }
        $best = [];
        $least = PHP_INT_MAX;
        foreach ($this->masks as [$maskRows, $maskColumns]) {
            $masked = $across = [];
            foreach ($rows as $i => $row) {
                $masked[] = $row ^ $maskRows[$i];
                $across[] = $columns[$i] ^ $maskColumns[$i];
            }
            $penalty = $this->penalty($masked, $across, $least);
            if ($penalty < $least) {
                [$least, $best] = [$penalty, $masked];
            }
        }

        return $best;
    }

    /**
     * @param  list<int>  $rows
     * @param  list<int>  $columns
     * @param  int  $least more than this need not be counted to the end
     */
    private function penalty(array $rows, array $columns, int $least): int
    {
        $pairs = $this->full >> 1;
        $penalty = 0;
        $dark = '';
        foreach ([$rows, $columns] as $byRow => $lines) {
            $groups = $before = $equalBefore = 0;
            $windows = $starts = $squares = $finders = '';
            foreach ($lines as $i => $line) {
                // A bit where a module is like the one after it; four such bits are five modules in a row.
                $equal = ~($line ^ ($line >> 1)) & $pairs;
                $five = $equal & ($equal >> 1);
                $five &= $five >> 2;
                if ($five !== 0) {
                    $windows .= decbin($five);
                    $starts .= decbin($five & ~($five << 1));
                }
                if ($byRow === 0) {
                    $dark .= decbin($line);
                    if ($i > 0) {
                        $squares .= decbin($equal & $equalBefore & ~($line ^ $before));
                    }
                    $before = $line;
                    $equalBefore = $equal;
                }
                // Dark, light, three dark, light, dark, with four light on one side, like the corners.
                $finder =
                    $line & ~($line >> 1) & ($line >> 2) & ($line >> 3) & ($line >> 4) & ~($line >> 5) & ($line >> 6);
                if ($finder !== 0) {
                    $light = ~$line & $this->full;
                    $light &= $light >> 1;
                    $light &= $light >> 2;
                    $finders .= decbin($finder & ($light >> 7)) . decbin($finder & ($light << 4));
                }
            }
            $penalty +=
                substr_count($windows, '1') +
                2 * substr_count($starts, '1') +
                3 * substr_count($squares, '1') +
                40 * substr_count($finders, '1');
            if ($penalty >= $least) {
                return $penalty;
            }
        }
        $share = substr_count($dark, '1') / $this->size ** 2;

        return $penalty + 10 * (int) (abs($share - 0.5) * 20);
    }

    private function patterns(int $version): void
    {
        $last = $this->size - 1;
        foreach ([[0, 0], [$last - 6, 0], [0, $last - 6]] as [$left, $top]) {
            for ($y = -1; $y <= 7; $y++) {
                for ($x = -1; $x <= 7; $x++) {
                    $ring = max(abs($x - 3), abs($y - 3));
                    $this->take($left + $x, $top + $y, $ring !== 2 && $ring !== 4);
                }
            }
        }
        for ($i = 8; $i <= $last - 8; $i++) {
            $this->take($i, 6, $i % 2 === 0);
            $this->take(6, $i, $i % 2 === 0);
        }
        foreach (self::ALIGNED[$version] as $left) {
            foreach (self::ALIGNED[$version] as $top) {
                $corners = ($left === 6 || $left === $last - 6) + ($top === 6 || $top === $last - 6);
                if ($corners === 2 && !($left === $last - 6 && $top === $last - 6)) {
                    continue;
                }
                for ($y = -2; $y <= 2; $y++) {
                    for ($x = -2; $x <= 2; $x++) {
                        $this->take($left + $x, $top + $y, max(abs($x), abs($y)) !== 1);
                    }
                }
            }
        }
        // Kept for the information on the mask, and the module that is always dark.
        for ($i = 0; $i < 9; $i++) {
            $this->take($i, 8, $i === 6);
            $this->take(8, $i, $i === 6);
        }
        for ($i = 0; $i < 8; $i++) {
            $this->take($last - $i, 8, false);
            $this->take(8, $last - $i, $i === 7);
        }
        if ($version >= 7) {
            $information = ($version << 12) | self::remainder($version << 12, 0x1f25, 12);
            for ($i = 0; $i < 18; $i++) {
                $dark = (($information >> $i) & 1) === 1;
                $this->take($last - 10 + ($i % 3), intdiv($i, 3), $dark);
                $this->take(intdiv($i, 3), $last - 10 + ($i % 3), $dark);
            }
        }
    }

    private function take(int $x, int $y, bool $dark): void
    {
        if ($x < 0 || $y < 0 || $x >= $this->size || $y >= $this->size) {
            return;
        }
        $bit = 1 << ($this->size - 1 - $x);
        $this->taken[$y] |= $bit;
        $this->rows[$y] = $dark ? $this->rows[$y] | $bit : $this->rows[$y] & ~$bit;
    }

    /** Upwards and downwards in columns of two from the right, around what is taken (7.7.3). */
    private function path(): void
    {
        $up = true;
        for ($right = $this->size - 1; $right > 0; $right -= 2, $up = !$up) {
            $right = $right === 6 ? 5 : $right;
            for ($i = 0; $i < $this->size; $i++) {
                $y = $up ? $this->size - 1 - $i : $i;
                foreach ([$right, $right - 1] as $x) {
                    if ((($this->taken[$y] >> ($this->size - 1 - $x)) & 1) === 0) {
                        $this->path[] = [$x, $y];
                    }
                }
            }
        }
    }

    /** @return array{array<int, int>, array<int, int>} what turns data into a symbol */
    private function masked(int $mask): array
    {
        $last = $this->size - 1;
        $rows = $this->rows;
        foreach ($rows as $y => $row) {
            for ($x = 0; $x <= $last; $x++) {
                if ((($this->taken[$y] >> ($last - $x)) & 1) === 0 && self::isTurned($mask, $x, $y)) {
                    $rows[$y] |= 1 << ($last - $x);
                }
            }
        }
        // Level M is 00 (7.9.1). The bits stand twice, the lowest first.
        $information = (($mask << 10) | self::remainder($mask << 10, 0x537, 10)) ^ 0x5412;
        for ($i = 0; $i < 15; $i++) {
            if ((($information >> $i) & 1) === 0) {
                continue;
            }
            [$x, $y] = match (true) {
                $i < 6 => [8, $i],
                $i < 8 => [8, $i + 1],
                $i === 8 => [7, 8],
                default => [14 - $i, 8],
            };
            $rows[$y] |= 1 << ($last - $x);
            [$x, $y] = $i < 8 ? [$last - $i, 8] : [8, $last - 14 + $i];
            $rows[$y] |= 1 << ($last - $x);
        }
        $columns = array_fill(0, $this->size, 0);
        foreach ($rows as $y => $row) {
            for ($x = 0; $x <= $last; $x++) {
                if (($row >> ($last - $x)) & 1) {
                    $columns[$x] |= 1 << ($last - $y);
                }
            }
        }

        return [$rows, $columns];
    }

    /** Whether a mask turns a module (table 10). */
    private static function isTurned(int $mask, int $x, int $y): bool
    {
        return match ($mask) {
            0 => ($x + $y) % 2,
            1 => $y % 2,
            2 => $x % 3,
            3 => ($x + $y) % 3,
            4 => (intdiv($y, 2) + intdiv($x, 3)) % 2,
            5 => (($x * $y) % 2) + (($x * $y) % 3),
            6 => ((($x * $y) % 2) + (($x * $y) % 3)) % 2,
            default => ((($x + $y) % 2) + (($x * $y) % 3)) % 2,
        } === 0;
    }

    /** What is left of a polynomial divided by another of so high a degree (annexes C and D). */
    private static function remainder(int $value, int $by, int $degree): int
    {
        for ($bit = 17; $bit >= $degree; $bit--) {
            if (($value >> $bit) & 1) {
                $value ^= $by << ($bit - $degree);
            }
        }

        return $value;
    }
}
