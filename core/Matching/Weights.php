<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * How often each level of agreement occurs: m, between two records of one person; s, between a person and a brother or
 * sister; u, between two others. The published table is common practice, no source, save where a reason is given; a
 * school may put m estimated from its own data in its place ({@see Estimation}).
 */
final readonly class Weights
{
    /** field => level => [m, u, s] */
    private const TABLE = [
        // About 1 in 10 lists writes a given name otherwise than the school does: short forms, second names, slips. u
        // of an exact agreement is the name's own frequency among those known.
        'given name' => [
            'alike' => [0.9, 0.01, 0.004],
            'other form' => [0.028, 0.0015, 0.001],
            'near' => [0.03, 0.005, 0.01],
            'sounds alike' => [0.006, 0.006, 0.008],
            'part of it' => [0.016, 0.004, 0.01],
            'akin' => [0.006, 0.015, 0.03],
            'differs' => [0.004, 0.915, 0.9],
        ],
        // Lists that give initials give them throughout, so m is that of a list which does.
        'given initial' => ['initial only' => [0.97, 0.08, 0.08], 'differs' => [0.03, 0.92, 0.92]],
        // Family names change rarely within a year, and families share them.
        'family name' => [
            'alike' => [0.94, 0.003, 0.93],
            'other form' => [0.01, 0.001, 0.01],
            'near' => [0.02, 0.003, 0.015],
            'sounds alike' => [0.004, 0.004, 0.005],
            'part of it' => [0.02, 0.002, 0.03],
            'differs' => [0.008, 0.94, 0.02],
        ],
        'family initial' => ['initial only' => [0.97, 0.08, 0.96], 'differs' => [0.03, 0.92, 0.04]],
        'names swapped' => ['alike' => [0.006, 0.00001, 0.00001]],
        // Two students of one grade share a day about once in 365, of a whole district once in 4,700. Twins: about 3
        // births in 100 families' children. Who is held against a row is of its grade or the next, so u is theirs: one
        // in four is born in the same year. m and u of the rare levels as counted in 12,000 pairs of known truth
        // (tests/Support/MixedUpList, seeds 301 to 312): no slip of a hand changes both month and day.
        'birth date' => [
            'alike' => [0.965, 0.0008, 0.03],
            'turned' => [0.006, 0.0005, 0.0005],
            'one digit' => [0.017, 0.012, 0.012],
            'another year' => [0.001, 0.001, 0.001],
            'same year' => [0.002, 0.24, 0.06],
            'differs' => [0.009, 0.7457, 0.8965],
        ],
        // A number is given once; two numbers for one child come from a move between schools.
        'student number' => [
            'alike' => [0.975, 0.00002, 0.000001],
            'one digit' => [0.015, 0.006, 0.01],
            'differs' => [0.01, 0.994, 0.99],
            'alike, elsewhere' => [0.6, 0.0005, 0.0005],
            'differs, elsewhere' => [0.4, 0.9995, 0.9995],
        ],
        'e-mail' => [
            'alike' => [0.85, 0.0001, 0.02],
            'alike, claimed' => [0.85, 0.0001, 0.02],
            'same local part' => [0.05, 0.0005, 0.002],
            'differs' => [0.1, 0.9994, 0.978],
        ],
        // Families move house and change numbers; brothers and sisters share their guardians. u is that of the address
        // itself.
        'guardian contact' => [
            'alike' => [0.78, 0.0005, 0.8],
            'same name' => [0.07, 0.002, 0.08],
            'differs' => [0.15, 0.995, 0.12],
        ],
        // A list is of this year or of the next: as likely the same grade as the one above. Further away is a slip or
        // another child. u of a grade is its share of the school, that of a school its share of the district.
        'grade' => ['alike' => [0.52, 0.1, 0.03], 'next' => [0.43, 0.1, 0.06], 'differs' => [0.05, 0.8, 0.91]],
        // A list of the year agrees on it, a fall list does not: agreement says much, disagreement little. u is the
        // section's share.
        'section' => ['alike' => [0.4, 0.03, 0.03], 'differs' => [0.6, 0.97, 0.97]],
        'school' => ['alike' => [0.88, 0.45, 0.75], 'differs' => [0.12, 0.55, 0.25]],
    ];

    /**
     * Names go together by language: two who share a given name share the family name this many times as often as two
     * others.
     */
    private const TOGETHER = 3.0;

    /**
     * @param array<string, array<string, float>> $m field to level to an estimated m, where it stands in for the
     *     published one
     */
    private function __construct(private array $m) {}

    public static function published(): self
    {
        return new self([]);
    }

    /**
     * @param array<string, array<string, float>> $m field to level to m; fields and levels not named keep the published
     *     m
     */
    public static function estimated(array $m): self
    {
        return new self($m);
    }

    /** @return array<string, list<string>> field to its levels */
    public static function levels(): array
    {
        return array_map(array_keys(...), self::TABLE);
    }

    public function m(string $field, string $level): float
    {
        return max(1e-6, $this->m[$field][$level] ?? self::TABLE[$field][$level][0]);
    }

    /** @param  float|null  $frequency share of people with this value, in place of u for an exact agreement */
    public function u(string $field, string $level, ?float $frequency = null): float
    {
        $together = $field === 'family name' && $level === 'alike' && $frequency !== null ? self::TOGETHER : 1.0;

        return max(
            1e-6,
            min(0.5, $together * ($frequency ?? self::TABLE[$field][$level][1])),
            $frequency === null ? self::TABLE[$field][$level][1] : 0.0,
        );
    }

    /** Bits for or against the two being one person: log2(m/u). */
    public function same(string $field, string $level, ?float $frequency = null): float
    {
        return log($this->m($field, $level) / $this->u($field, $level, $frequency), 2);
    }

    /** Bits for or against the two being brothers or sisters: log2(s/u). */
    public function sibling(string $field, string $level, ?float $frequency = null): float
    {
        return log(self::TABLE[$field][$level][2] / $this->u($field, $level, $frequency), 2);
    }
}
