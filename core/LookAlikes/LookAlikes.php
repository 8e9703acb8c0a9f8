<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

use Vantrel\Core\Matching\Blocks;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Caution;
use Vantrel\Core\Matching\Clusters;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;
use Vantrel\Core\Records\PersonKind;

/** Finds accounts that may be one person, among those of one kind of one school or district. */
final class LookAlikes
{
    /** Below this chance a pair is not worth a person's time. */
    private const WORTH_A_LOOK = 0.5;

    /** Guardians of one child, with two addresses. */
    private const ONE_NAME = 'another address: perhaps a parent and a grown child of one name';

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
        foreach (self::clusters($pairs, $numbers, $toldApart) as $i => [$cluster, $accounts]) {
            if ($accounts > 0) {
                $kept[] = $pairs[$i]->of($cluster, $accounts);
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
     * Pairs of some grown-ups with any of those known: guardians, or staff. Those with another given name are left out:
     * two who share an address, a telephone and their children are a couple. Of guardians a name alone says too little:
     * they have to share an address, a telephone or a child too.
     *
     * @param  list<Subject>  $adults
     * @param  iterable<Subject>  $known all of their kind at the school, those included
     * @return list<LookAlike> each pair once, the smaller id left
     */
    public static function ofAdults(PersonKind $kind, array $adults, iterable $known): array
    {
        $says = fn(LookAlike $p, array $fields, array $levels): bool => array_filter(
            $p->evidence,
            fn(Evidence $e): bool => in_array($e->field, $fields, true) && in_array($e->level, $levels, true),
        ) !== [];

        $pairs = array_values(
            array_filter(
                // Whom nothing but a name could join is not looked at: of two guardians it would say nothing.
                self::of($adults, $known, only: $kind === PersonKind::Guardian ? Blocks::CONTACTS : ''),
                fn(LookAlike $p): bool => !$says($p, ['given name', 'given initial'], ['differs', 'akin']) &&
                    ($kind !== PersonKind::Guardian || $says($p, ['e-mail', 'guardian contact'], ['alike'])),
            ),
        );

        return array_map(
            fn(LookAlike $p): LookAlike => $p->but(self::careful($kind, $p->caution, $p->evidence)),
            $pairs,
        );
    }

    /**
     * Pairs of some students with any of those known, whatever a person may have said of them.
     *
     * @param  list<Subject>  $students
     * @param  iterable<Subject>  $known everyone of the school, those students included
     * @param  string  $only the blocks that are looked into, as {@see Blocks} names them; '' for all
     * @return list<LookAlike> each pair once, the smaller id left
     */
    public static function of(array $students, iterable $known, ?Weights $weights = null, string $only = ''): array
    {
        $pairs = [];
        foreach (Matcher::pairs($students, $known, $weights, $only) as [$student, $candidate]) {
            $other = $candidate->subject;
            if (
                (self::otherName($candidate)
                    ? ($student->number === '') !== ($other->number === '')
                    : $candidate->probability >= self::WORTH_A_LOOK) &&
                !self::numbered([$student->schoolId, $student->number], [$other->schoolId, $other->number])
            ) {
                [$left, $right] = $student->id < $other->id ? [$student, $other] : [$other, $student];
                $pairs[] = new LookAlike(
                    $left->id,
                    $right->id,
                    $candidate->probability,
                    self::careful(PersonKind::Student, $candidate->caution, $candidate->evidence),
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
     * @return list<array{string, int}> for each pair, the smallest id of the cluster that keeps it and how many
     *     accounts that has; '' and 0 where none does
     */
    public static function clusters(array $pairs, array $numbers, array $toldApart): array
    {
        $size = $cluster = $first = [];
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
            $first[$n] = $members[0];
        }

        return array_map(
            fn(LookAlike $p): array => isset($cluster[$p->leftId], $cluster[$p->rightId]) &&
            $cluster[$p->leftId] === $cluster[$p->rightId]
                ? [$first[$cluster[$p->leftId]], $size[$cluster[$p->leftId]]]
                : ['', 0],
            $pairs,
        );
    }

    /**
     * Whether the given names are two: a twin, unless one of the accounts was made by hand, as one without a number
     * beside one with a number may be.
     */
    private static function otherName(Candidate $candidate): bool
    {
        return $candidate->caution === Caution::OTHER_NAME &&
            array_filter(
                $candidate->evidence,
                fn(Evidence $e): bool => $e->field === 'given name' && $e->level === 'differs',
            ) !== [];
    }

    /**
     * What has to be thought of before two are merged. What is not undone lightly asks for more than a list: two birth
     * dates that no slip explains are two children, two addresses of grown-ups may be two of one name.
     *
     * @param  string  $caution of the match
     * @param  list<Evidence>  $evidence
     * @return string '' for nothing
     */
    public static function careful(PersonKind $kind, string $caution, array $evidence): string
    {
        foreach ($caution === '' ? $evidence : [] as $e) {
            if ($e->field === 'birth date' && in_array($e->level, ['same year', 'another year', 'differs'], true)) {
                return 'same name, another birth date';
            }
            if (
                $kind !== PersonKind::Student &&
                $e->field === 'e-mail' &&
                in_array($e->level, ['differs', 'same local part'], true)
            ) {
                return $kind === PersonKind::Guardian ? self::ONE_NAME : 'another address';
            }
        }

        return $caution;
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
