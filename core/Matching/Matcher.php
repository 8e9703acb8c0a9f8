<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/**
 * Finds who of the people known the rows of a list may be: probabilistic record linkage after Fellegi and Sunter (1969,
 * JASA 64:1183). Whom it compares is for {@see Blocks} to say, who gets whom in the end for {@see OneToOne}.
 *
 * For each row three things can be true: it is someone known, it is a brother or sister of someone known, or neither.
 * The chance that it is person k weighs the evidence for k against all the rest: A_k / (1 - K + sum of all A and B),
 * with
 * A_k = K/N x 2^(bits for the same person), B_k = S/N x 2^(bits for a sibling), N people known. K is taken from the
 * list itself, by expectation and maximisation: the share of rows that are someone known.
 */
final class Matcher
{
    /** At or above: the same person. */
    public const SAME = 0.98;

    /** Below: another person. Between the two: a question. */
    public const OTHER = 0.1;

    /**
     * K, the chance that a row's person is among those known, before the list has been looked at; and how far the list
     * may move it.
     */
    private const KNOWN_SHARE = 0.5;

    private const KNOWN_SHARE_LIMITS = [0.1, 0.95];

    /** As many rows as this weigh as much as the half one starts from. */
    private const KNOWN_SHARE_ROWS = 4;

    private const KNOWN_SHARE_ROUNDS = 8;

    /** S: chance that it is a brother or sister, not known yet, of someone known. */
    public const SIBLING_SHARE = 0.1;

    /** How often those who lost someone to another row are weighed again. */
    private const ROUNDS = 6;

    private readonly Comparator $comparator;

    private readonly Blocks $blocks;

    private readonly Population $crowd;

    /**
     * @param  list<Subject>  $rows
     * @param  iterable<Subject>  $known
     */
    private function __construct(array $rows, iterable $known, Weights $weights, string $only = '')
    {
        $this->crowd = new Population();
        $this->blocks = new Blocks($rows, $known, $this->crowd, $only);
        $this->comparator = new Comparator($weights, $this->crowd);
    }

    /**
     * @param  list<Subject>  $rows
     * @param  iterable<Subject>  $known read once; only those who share something with a row are kept
     */
    public static function link(array $rows, iterable $known, ?Weights $weights = null): Linkage
    {
        $matcher = new self($rows, $known, $weights ?? Weights::published());
        $scores = $candidates = $apart = [];
        foreach ($rows as $row) {
            $scores[$row->id] = $matcher->score($row);
        }
        $share = self::knownShare($scores);
        foreach ($rows as $row) {
            [$found, $other] = $matcher->weigh($row, $scores[$row->id], $share);
            if ($found !== []) {
                $candidates[$row->id] = $found;
            }
            if ($other !== null) {
                $apart[$row->id] = $other;
            }
        }

        $taken = [];
        for ($round = 0; $round < self::ROUNDS; $round++) {
            if (!$matcher->withoutTaken($rows, $scores, $share, $candidates, $taken)) {
                break;
            }
        }

        return new Linkage(
            $candidates,
            OneToOne::assign($candidates),
            $apart,
            $taken,
            $matcher->comparator,
            $matcher->crowd->people,
        );
    }

    /**
     * Pairs that may be one person, each judged by itself: several records can be the same one.
     *
     * @param  list<Subject>  $subjects whose pairs are looked for
     * @param  iterable<Subject>|null  $among everyone they may be, themselves included; null for each other only
     * @param  string  $only the blocks that are looked into, as {@see Blocks} names them; '' for all
     * @return list<array{Subject, Candidate}> each pair once, those of {@see OTHER} and more, in the order of the
     *     records
     */
    public static function pairs(
        array $subjects,
        ?iterable $among = null,
        ?Weights $weights = null,
        string $only = '',
    ): array {
        $matcher = new self($subjects, $among ?? $subjects, $weights ?? Weights::published(), $only);
        $pairs = $seen = [];
        foreach ($subjects as $subject) {
            foreach ($matcher->score($subject) as [$other, $a, $b, $levels]) {
                $key = $subject->id < $other->id ? "$subject->id $other->id" : "$other->id $subject->id";
                $probability = (self::KNOWN_SHARE * $a) / (1 - self::KNOWN_SHARE + self::KNOWN_SHARE * $a + $b);
                $otherName = Caution::mayBeOtherName($levels);
                if (
                    isset($seen[$key]) ||
                    (!$otherName && ($probability < self::OTHER || Caution::isAnother($levels)))
                ) {
                    continue;
                }
                $seen[$key] = true;
                $pairs[] = [
                    $subject,
                    new Candidate(
                        $other,
                        $matcher->comparator->evidence($subject, $other),
                        $probability,
                        $otherName ? Caution::OTHER_NAME : Caution::of($levels),
                    ),
                ];
            }
        }

        return $pairs;
    }

    /**
     * Whoever is taken for certain is out of the question for all other rows: these are weighed again without them.
     *
     * @param  list<Subject>  $rows
     * @param  array<string, list<array{Subject, float, float, array<string, string>}>>  $scores
     * @param  array<string, list<Candidate>>  $candidates
     * @param  array<string, array{Candidate, string}>  $taken
     * @return bool whether anything changed
     */
    private function withoutTaken(array $rows, array $scores, float $share, array &$candidates, array &$taken): bool
    {
        $takenBy = [];
        foreach (OneToOne::assign($candidates) as $row => $id) {
            foreach ($candidates[$row] as $candidate) {
                if ($candidate->subject->id === $id && $candidate->sure()) {
                    $takenBy[$id] = (string) $row;
                }
            }
        }
        $changed = false;
        foreach ($rows as $row) {
            $lost = array_values(
                array_filter(
                    $candidates[$row->id] ?? [],
                    fn(Candidate $c): bool => ($takenBy[$c->subject->id] ?? $row->id) !== $row->id,
                ),
            );
            if ($lost === []) {
                continue;
            }
            $left = array_values(
                array_filter($scores[$row->id], fn(array $s): bool => ($takenBy[$s[0]->id] ?? $row->id) === $row->id),
            );
            [$candidates[$row->id]] = $this->weigh($row, $left, $share);
            $taken[$row->id] ??= [$lost[0], $takenBy[$lost[0]->subject->id]];
            $changed = true;
        }
        $candidates = array_filter($candidates, fn(array $list): bool => $list !== []);

        return $changed;
    }

    /**
     * How the rows and those they share a block with agree, for {@see Estimation}: pattern to how many pairs show it.
     *
     * @param  list<Subject>  $rows
     * @param  iterable<Subject>  $known
     * @return list<array{array<string, string>, int}>
     */
    public static function patterns(array $rows, iterable $known): array
    {
        $matcher = new self($rows, $known, Weights::published());
        $patterns = $counts = [];
        foreach ($rows as $row) {
            foreach ($matcher->blocks->nearTo($row) as $person) {
                if ($person->id !== $row->id) {
                    $levels = $matcher->comparator->levels($row, $person);
                    $key = json_encode($levels, JSON_THROW_ON_ERROR);
                    $patterns[$key] = $levels;
                    $counts[$key] = ($counts[$key] ?? 0) + 1;
                }
            }
        }

        return array_map(fn(string $key): array => [$patterns[$key], $counts[$key]], array_keys($patterns));
    }

    /**
     * Everyone worth weighing against a row: place among those near, odds for the same person, for a sibling, and
     * levels.
     *
     * @return list<array{Subject, float, float, array<string, string>}>
     */
    private function score(Subject $row): array
    {
        $scored = [];
        foreach ($this->blocks->nearTo($row) as $person) {
            if ($person->id === $row->id) {
                continue;
            }
            $levels = $this->comparator->levels($row, $person);
            [$same, $sibling] = $this->comparator->score($levels, $row, $person);
            // Bits beyond 60 either way make no difference that a double can hold; the least are left out, save for
            // naming namesakes.
            $a = 2 ** max(-60.0, min(60.0, $same)) / max(2, $this->crowd->people);
            $b = (self::SIBLING_SHARE * 2 ** max(-60.0, min(60.0, $sibling))) / max(2, $this->crowd->people);
            if ($a + $b > 1e-9) {
                $scored[] = [$person, $a, $b, $levels];
            }
        }

        return $scored;
    }

    /** @param  array<string, list<array{Subject, float, float, array<string, string>}>>  $scores */
    private static function knownShare(array $scores): float
    {
        $share = self::KNOWN_SHARE;
        for ($round = 0; $round < self::KNOWN_SHARE_ROUNDS; $round++) {
            $known = self::KNOWN_SHARE * self::KNOWN_SHARE_ROWS;
            foreach ($scores as $scored) {
                $same = $sibling = 0.0;
                foreach ($scored as [, $a, $b]) {
                    $same += $a;
                    $sibling += $b;
                }
                $known += ($share * $same) / (1 - $share + $sibling + $share * $same);
            }
            $share = max(
                self::KNOWN_SHARE_LIMITS[0],
                min(self::KNOWN_SHARE_LIMITS[1], $known / (count($scores) + self::KNOWN_SHARE_ROWS)),
            );
        }

        // In steps, so that a list planned again after a part of it was applied is weighed as before.
        return round($share * 20) / 20;
    }

    /**
     * @param  list<array{Subject, float, float, array<string, string>}>  $scored
     * @return array{list<Candidate>, array{string, string}|null}
     */
    private function weigh(Subject $row, array $scored, float $share): array
    {
        $sum = 1 - $share;
        foreach ($scored as [, $a, $b]) {
            $sum += $share * $a + $b;
        }
        $found = [];
        $apart = null;
        $nearest = 0.0;
        foreach ($scored as [$person, $a, $b, $levels]) {
            $probability = ($share * $a) / $sum;
            if ($probability >= self::OTHER && !Caution::isAnother($levels)) {
                $found[] = new Candidate(
                    $person,
                    $this->comparator->evidence($row, $person),
                    $probability,
                    Caution::of($levels),
                );
            } elseif ($a + $b > $nearest) {
                $word = Caution::relation($levels, $b > $share * $a);
                if ($word !== '') {
                    $nearest = $a + $b;
                    $apart = [$person->id, trim("$person->given $person->family") . ": $word"];
                }
            }
        }
        usort(
            $found,
            fn(Candidate $a, Candidate $b): int => [$b->probability, $a->subject->id] <=> [
                $a->probability,
                $b->subject->id,
            ],
        );

        return [$found, $apart];
    }
}
