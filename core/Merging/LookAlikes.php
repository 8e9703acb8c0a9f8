<?php

declare(strict_types=1);

namespace Vantrel\Core\Merging;

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
        $linkage = Matcher::link($students, $students, $weights, $toldApart);
        $pairs = [];
        foreach ($students as $student) {
            foreach ($linkage->candidates($student->id) as $candidate) {
                $ids = [$student->id, $candidate->subject->id];
                sort($ids);
                $key = implode('+', $ids);
                $other = $candidate->subject;
                // A school gives a number once: two accounts with two numbers of one school are two children, however alike.
                $numbered = $student->number !== '' && $other->number !== '' && $student->number !== $other->number && $student->schoolId === $other->schoolId;
                if ($numbered || $candidate->probability < self::WORTH_A_LOOK || isset($pairs[$key])) {
                    continue;
                }
                $pairs[$key] = new LookAlike($ids[0], $ids[1], $candidate->probability, $candidate->caution, $candidate->evidence);
            }
        }
        usort($pairs, fn (LookAlike $a, LookAlike $b): int => [$b->probability, $a->leftId, $a->rightId] <=> [$a->probability, $b->leftId, $b->rightId]);

        return $pairs;
    }
}
