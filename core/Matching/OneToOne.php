<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Vantrel\Core\Table\Assignment;

/**
 * Each person can be one row only. Rows and people that compete are gathered into groups, and each group gets the
 * assignment with the highest total of log odds.
 */
final class OneToOne
{
    /**
     * Groups of rows and people that compete for each other are settled exactly up to this size, beyond it likeliest
     * first.
     */
    private const MAX_GROUP = 60;

    /**
     * @param  array<string, list<Candidate>>  $candidates
     * @return array<string, string>
     */
    public static function assign(array $candidates): array
    {
        $rowsOf = [];
        foreach ($candidates as $row => $list) {
            foreach ($list as $candidate) {
                $rowsOf[$candidate->subject->id][] = (string) $row;
            }
        }
        $assigned = $done = [];
        foreach (array_keys($candidates) as $start) {
            $start = (string) $start;
            if (isset($done[$start])) {
                continue;
            }
            $rows = [$start => true];
            $people = [];
            $queue = [$start];
            while ($queue !== []) {
                foreach ($candidates[array_pop($queue)] as $candidate) {
                    $id = $candidate->subject->id;
                    if (isset($people[$id])) {
                        continue;
                    }
                    $people[$id] = true;
                    foreach ($rowsOf[$id] as $other) {
                        if (!isset($rows[$other])) {
                            $rows[$other] = true;
                            $queue[] = $other;
                        }
                    }
                }
            }
            $rows = array_map(strval(...), array_keys($rows));
            $done += array_fill_keys($rows, true);
            $assigned += self::settle($rows, array_map(strval(...), array_keys($people)), $candidates);
        }

        return $assigned;
    }

    /**
     * @param  list<string>  $rows
     * @param  list<string>  $people
     * @param  array<string, list<Candidate>>  $candidates
     * @return array<string, string>
     */
    private static function settle(array $rows, array $people, array $candidates): array
    {
        $assigned = [];
        if (max(count($rows), count($people)) > self::MAX_GROUP) {
            $pairs = [];
            foreach ($rows as $row) {
                foreach ($candidates[$row] as $candidate) {
                    $pairs[] = [$candidate->probability, $row, $candidate->subject->id];
                }
            }
            rsort($pairs);
            $taken = [];
            foreach ($pairs as [, $row, $id]) {
                if (!isset($assigned[$row]) && !isset($taken[$id])) {
                    $assigned[$row] = $id;
                    $taken[$id] = true;
                }
            }

            return $assigned;
        }
        $place = array_flip($people);
        $scores = [];
        foreach ($rows as $row) {
            $line = array_fill(0, count($people), 0.0);
            foreach ($candidates[$row] as $candidate) {
                // Log odds against "nobody known", lifted so that any candidate is worth more than none.
                $line[$place[$candidate->subject->id]] =
                    20 + log(max(1e-9, $candidate->probability) / max(1e-9, 1 - $candidate->probability));
            }
            $scores[] = array_values($line);
        }
        foreach (Assignment::best($scores) as $r => $p) {
            if ($p !== null && $scores[$r][$p] > 0.0) {
                $assigned[$rows[$r]] = $people[$p];
            }
        }

        return $assigned;
    }
}
