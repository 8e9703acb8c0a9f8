<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Matching\Clusters;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;

/** Finds accounts that may be one child, among the students of one school or district. */
final class LookAlikes
{
    /** Below this chance a pair is not worth a person's time. */
    private const WORTH_A_LOOK = 0.5;

    /**
     * Everyone held against everyone, clusters and all.
     *
     * @param  list<Subject>  $students
     * @param  array<string, true>  $toldApart "id id" of pairs a person has told apart, both ways round
     * @return list<LookAlike> each pair once, the smaller id left, likeliest first
     */
    public static function among(array $students, ?Weights $weights = null, array $toldApart = []): array
    {
        $pairs = array_values(
            array_filter(
                self::of($students, $students, $weights),
                fn(LookAlike $p): bool => !isset($toldApart["$p->leftId $p->rightId"]),
            ),
        );
        $numbers = [];
        foreach ($students as $student) {
            $numbers[$student->id] = [$student->schoolId, $student->number];
        }
        $kept = [];
        foreach (self::accounts($pairs, $numbers, $toldApart) as $i => $accounts) {
            if ($accounts > 0) {
                $kept[] = $pairs[$i]->of($accounts);
            }
        }
        usort(
            $kept,
            fn(LookAlike $a, LookAlike $b): int => [$b->probability, $a->leftId, $a->rightId] <=> [
                $a->probability,
                $b->leftId,
                $b->rightId,
            ],
        );

        return $kept;
    }

    /**
     * Pairs of some students with any of those known, whatever a person may have said of them.
     *
     * @param  list<Subject>  $students
     * @param  iterable<Subject>  $known everyone of the school, those students included
     * @return list<LookAlike> each pair once, the smaller id left
     */
    public static function of(array $students, iterable $known, ?Weights $weights = null): array
    {
        $pairs = [];
        foreach (Matcher::pairs($students, $known, $weights) as [$student, $candidate]) {
            $other = $candidate->subject;
            if (
                $candidate->probability >= self::WORTH_A_LOOK &&
                !self::numbered([$student->schoolId, $student->number], [$other->schoolId, $other->number])
            ) {
                [$left, $right] = $student->id < $other->id ? [$student, $other] : [$other, $student];
                $pairs[] = new LookAlike(
                    $left->id,
                    $right->id,
                    $candidate->probability,
                    $candidate->caution,
                    $candidate->evidence,
                    facts: ToldApart::facts($left, $right),
                );
            }
        }

        return $pairs;
    }

    /**
     * Pairs that hang together are one child; where two of a cluster cannot be (two numbers of one school, or told
     * apart by a person), the weakest link between them is not shown.
     *
     * @param  list<LookAlike>  $pairs
     * @param  array<string, array{string, string}>  $numbers id to school and number, '' for none
     * @param  array<string, true>  $toldApart "id id" of pairs a person has told apart, both ways round
     * @return list<int> for each pair, how many accounts the cluster has that keeps it; 0 where none does
     */
    public static function accounts(array $pairs, array $numbers, array $toldApart): array
    {
        $size = $cluster = [];
        foreach (
            Clusters::of(
                array_map(fn(LookAlike $p): array => [$p->leftId, $p->rightId, $p->probability], $pairs),
                fn(string $a, string $b): bool => isset($toldApart["$a $b"]) ||
                    self::numbered($numbers[$a], $numbers[$b]),
            )
            as $n => $members
        ) {
            $cluster += array_fill_keys($members, $n);
            $size[$n] = count($members);
        }

        return array_map(
            fn(LookAlike $p): int => isset($cluster[$p->leftId], $cluster[$p->rightId]) &&
            $cluster[$p->leftId] === $cluster[$p->rightId]
                ? $size[$cluster[$p->leftId]]
                : 0,
            $pairs,
        );
    }

    /**
     * A school gives a number once: two accounts with two numbers of one school are two children, however alike.
     *
     * @param  array{string, string}  $a school and number, '' for none
     * @param  array{string, string}  $b
     */
    private static function numbered(array $a, array $b): bool
    {
        return $a[1] !== '' && $b[1] !== '' && $a[1] !== $b[1] && $a[0] === $b[0];
    }
}
