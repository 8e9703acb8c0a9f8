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
     * @param  list<Subject>  $students
     * @param  array<string, true>  $toldApart "id id" of pairs a person has told apart, both ways round
     * @return list<LookAlike> each pair once, the smaller id left, likeliest first
     */
    public static function among(array $students, ?Weights $weights = null, array $toldApart = []): array
    {
        $pairs = [];
        foreach (Matcher::pairs($students, $weights, $toldApart) as [$student, $candidate]) {
            $other = $candidate->subject;
            $ids = [$student->id, $other->id];
            sort($ids);
            // A school gives a number once: two accounts with two numbers of one school are two children, however
            // alike.
            $numbered =
                $student->number !== '' &&
                $other->number !== '' &&
                $student->number !== $other->number &&
                $student->schoolId === $other->schoolId;
            if (!$numbered && $candidate->probability >= self::WORTH_A_LOOK) {
                $pairs[implode('+', $ids)] = new LookAlike(
                    $ids[0],
                    $ids[1],
                    $candidate->probability,
                    $candidate->caution,
                    $candidate->evidence,
                );
            }
        }
        $pairs = self::clustered($pairs, $students, $toldApart);
        usort(
            $pairs,
            fn(LookAlike $a, LookAlike $b): int => [$b->probability, $a->leftId, $a->rightId] <=> [
                $a->probability,
                $b->leftId,
                $b->rightId,
            ],
        );

        return $pairs;
    }

    /**
     * Pairs that hang together are one child; where two of a cluster cannot be (two numbers of one school, or told
     * apart by a person), the weakest link between them is not shown.
     *
     * @param  array<string, LookAlike>  $pairs
     * @param  list<Subject>  $students
     * @param  array<string, true>  $toldApart
     * @return array<string, LookAlike>
     */
    private static function clustered(array $pairs, array $students, array $toldApart): array
    {
        $byId = [];
        foreach ($students as $student) {
            $byId[$student->id] = $student;
        }
        $contradict = fn(string $a, string $b): bool => isset($toldApart["$a $b"]) ||
            ($byId[$a]->number !== '' &&
                $byId[$b]->number !== '' &&
                $byId[$a]->number !== $byId[$b]->number &&
                $byId[$a]->schoolId === $byId[$b]->schoolId);
        $size = $cluster = [];
        foreach (
            Clusters::of(
                array_map(fn(LookAlike $p): array => [$p->leftId, $p->rightId, $p->probability], array_values($pairs)),
                $contradict,
            )
            as $n => $members
        ) {
            foreach ($members as $id) {
                $cluster[$id] = $n;
            }
            $size[$n] = count($members);
        }
        $kept = [];
        foreach ($pairs as $key => $p) {
            if (isset($cluster[$p->leftId], $cluster[$p->rightId]) && $cluster[$p->leftId] === $cluster[$p->rightId]) {
                $kept[$key] = new LookAlike(
                    $p->leftId,
                    $p->rightId,
                    $p->probability,
                    $p->caution,
                    $p->evidence,
                    $size[$cluster[$p->leftId]],
                );
            }
        }

        return $kept;
    }
}
