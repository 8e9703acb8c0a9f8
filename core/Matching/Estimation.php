<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * Estimates m, and the share of true matches, from pairs nobody has labelled: expectation and maximisation (Dempster,
 * Laird and Rubin 1977) over the patterns of agreement, with the fields independent given the class, as Winkler (1988)
 * applied it to Fellegi and Sunter's model. Pairs that share a block are alike more often than two others are, so u is
 * estimated along with m; but it is that of the blocks and is not kept.
 */
final readonly class Estimation
{
    /** Fewer certain pairs than this say too little about the rare levels. */
    public const LEAST_PAIRS = 50;

    private const ROUNDS = 200;

    /** As many pairs as the start is worth: a level that a list happens not to show is rare, not impossible. */
    private const PRIOR = 100.0;

    /** The same for pairs that are not one person, of which every list has plenty. */
    private const FLOOR = 0.5;

    /**
     * @param  array<string, array<string, float>>  $m field to level to m
     * @param  float  $share of the pairs that are one person
     * @param  float  $matches how many pairs that is
     */
    private function __construct(public array $m, public float $share, public float $matches) {}

    /** Whether there were pairs enough to go by. */
    public function suffices(): bool
    {
        return $this->matches >= self::LEAST_PAIRS;
    }

    /**
     * @param  list<array{array<string, string>, int}>  $patterns levels by field, and how many pairs show them
     * @param array<string, array<string, float>>|null $u field to level to u, where it is known; estimated along where
     *     null
     */
    public static function of(array $patterns, Weights $start, ?array $u = null): self
    {
        $known = $u !== null;
        $m = [];
        foreach (Weights::levels() as $field => $levels) {
            foreach ($levels as $level) {
                $m[$field][$level] = $start->m($field, $level);
                $u[$field][$level] ??= $start->u($field, $level);
            }
        }
        $total = array_sum(array_column($patterns, 1));
        $share = 0.3;
        $matches = 0.0;
        for ($round = 0; $round < self::ROUNDS && $total > 0; $round++) {
            $counts = $others = [];
            $matches = 0.0;
            foreach ($patterns as [$levels, $n]) {
                $a = $share;
                $b = 1 - $share;
                foreach ($levels as $field => $level) {
                    $a *= $m[$field][$level];
                    $b *= $u[$field][$level] ?? 1.0;
                }
                // A school gives a number once: where both have one, it says which pairs are one person, and the
                // other fields are learnt from them; of the number itself nothing can be learnt that way.
                $expected = match (true) {
                    $known => $a + $b > 0 ? ($n * $a) / ($a + $b) : 0.0,
                    ($levels['student number'] ?? null) === 'alike' => (float) $n,
                    in_array($levels['student number'] ?? null, ['differs', 'one digit'], true) => 0.0,
                    default => $a + $b > 0 ? ($n * $a) / ($a + $b) : 0.0,
                };
                $matches += $expected;
                foreach ($levels as $field => $level) {
                    $counts[$field][$level] = ($counts[$field][$level] ?? 0.0) + $expected;
                    $others[$field][$level] = ($others[$field][$level] ?? 0.0) + $n - $expected;
                }
            }
            $moved = abs($matches / $total - $share);
            $share = min(1 - 1e-9, max(1e-9, $matches / $total));
            foreach ($counts as $field => $byLevel) {
                if (!$known && $field === 'student number') {
                    continue;
                }
                $new = self::shares(
                    $byLevel,
                    array_map(
                        fn(string $level): float => self::PRIOR * $start->m($field, $level),
                        array_combine(array_keys($m[$field]), array_keys($m[$field])),
                    ),
                );
                foreach ($new as $level => $value) {
                    $moved = max($moved, abs($value - $m[$field][$level]));
                }
                $m[$field] = $new;
                if (!$known) {
                    $u[$field] = self::shares($others[$field], array_fill_keys(array_keys($m[$field]), self::FLOOR));
                }
            }
            if ($moved < 1e-6) {
                break;
            }
        }

        return new self($m, $share, $matches);
    }

    /**
     * @param  array<string, float>  $counts
     * @param  array<string, float>  $before level to how much is added to its count
     * @return array<string, float>
     */
    private static function shares(array $counts, array $before): array
    {
        $sum = array_sum($counts) + array_sum($before);
        foreach ($before as $level => $more) {
            $before[$level] = (($counts[$level] ?? 0.0) + $more) / $sum;
        }

        return $before;
    }
}
