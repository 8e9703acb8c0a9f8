<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/**
 * The assignment of rows to columns with the highest total (Kuhn 1955, "The Hungarian method", in the O(n^3) form with
 * potentials).
 */
final class Assignment
{
    /**
     * @param  list<list<float>>  $scores a rectangle; any number of rows and columns
     * @return list<int|null> for each row its column, null where it got none (more rows than columns)
     */
    public static function best(array $scores): array
    {
        $rows = count($scores);
        if ($rows === 0) {
            return [];
        }
        $columns = count($scores[0]);
        // Where there are more rows than columns, made square with zeros. The negated scores are minimised; rows and
        // columns are counted from 1, 0 is the sentinel.
        $n = max($rows, $columns);
        $u = $v = array_fill(0, $n + 1, 0.0);
        $match = $way = array_fill(0, $n + 1, 0);
        for ($i = 1; $i <= $rows; $i++) {
            $match[0] = $i;
            $j0 = 0;
            $least = array_fill(0, $n + 1, INF);
            $used = array_fill(0, $n + 1, false);
            do {
                $used[$j0] = true;
                $i0 = $match[$j0];
                $delta = INF;
                $j1 = 0;
                for ($j = 1; $j <= $n; $j++) {
                    if ($used[$j]) {
                        continue;
                    }
                    $cost = -($scores[$i0 - 1][$j - 1] ?? 0.0) - $u[$i0] - $v[$j];
                    if ($cost < $least[$j]) {
                        $least[$j] = $cost;
                        $way[$j] = $j0;
                    }
                    if ($least[$j] < $delta) {
                        $delta = $least[$j];
                        $j1 = $j;
                    }
                }
                for ($j = 0; $j <= $n; $j++) {
                    if ($used[$j]) {
                        $u[$match[$j]] += $delta;
                        $v[$j] -= $delta;
                    } else {
                        $least[$j] -= $delta;
                    }
                }
                $j0 = $j1;
            } while ($match[$j0] !== 0);
            do {
                $j1 = $way[$j0];
                $match[$j0] = $match[$j1];
                $j0 = $j1;
            } while ($j0 !== 0);
        }
        $result = array_fill(0, $rows, null);
        for ($j = 1; $j <= $columns; $j++) {
            if ($match[$j] > 0) {
                $result[$match[$j] - 1] = $j - 1;
            }
        }

        return array_values($result);
    }
}
