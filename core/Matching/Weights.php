<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * The default m and u of every level: m, how often two records of one person agree that way; u, how often two records of
 * different people do. Common practice, no source, save where a reason is given; the school's own data can replace them.
 */
final class Weights
{
    /** field => level => [m, u] */
    private const TABLE = [
        // About 1 in 25 lists writes a given name otherwise than the school does (short forms, second names).
        'given name' => ['alike' => [0.93, 0.01], 'near' => [0.03, 0.008], 'initial only' => [0.015, 0.04], 'part of it' => [0.015, 0.004], 'differs' => [0.01, 0.94]],
        // Family names change rarely within a year; u of an exact agreement is the name's own frequency.
        'family name' => ['alike' => [0.94, 0.003], 'near' => [0.025, 0.003], 'part of it' => [0.02, 0.002], 'differs' => [0.015, 0.992]],
        'names swapped' => ['alike' => [0.01, 0.00001]],
        // Two students of one grade share a day about once in 400; 3 % of typed dates hold a slip.
        'birth date' => ['alike' => [0.96, 0.0015], 'turned' => [0.01, 0.0006], 'one digit' => [0.015, 0.015], 'differs' => [0.015, 0.983]],
        // A number is given once; two numbers for one child come from a move between schools.
        'student number' => ['alike' => [0.975, 0.00002], 'one digit' => [0.015, 0.002], 'differs' => [0.01, 0.998]],
        'e-mail' => ['alike' => [0.85, 0.0002], 'differs' => [0.15, 0.9998]],
        // Siblings share their guardians: agreement says less than it seems.
        'guardian contact' => ['alike' => [0.85, 0.004], 'differs' => [0.15, 0.996]],
        // One grade up is the usual course of a year; further away is a slip or another child.
        'grade' => ['alike' => [0.75, 0.1], 'next' => [0.22, 0.15], 'differs' => [0.03, 0.75]],
    ];

    /**
     * Bits for or against.
     *
     * @param  float|null  $frequency share of people with this value, in place of u for an exact agreement
     */
    public static function of(string $field, string $level, ?float $frequency = null): float
    {
        [$m, $u] = self::TABLE[$field][$level];

        return log($m / max(0.00001, $frequency ?? $u), 2);
    }
}
