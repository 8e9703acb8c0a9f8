<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Matching\Clusters;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Question;

/**
 * Finds rows of one list that are likely one student although they are not written alike, where one of them is nobody
 * known.
 */
final class StandsTwice
{
    /** @var array<string, list<StudentLine>> place of a row to the other rows that are likely the same student */
    private array $mates = [];

    /** @var array<string, int> */
    private array $order = [];

    /** @var array<string, array{list<\Vantrel\Core\Matching\Evidence>, float}> */
    private array $evidence = [];

    /** @param  list<StudentLine>  $lines */
    public function __construct(array $lines, private readonly IntakeWish $wish)
    {
        // Two rows with two numbers are two students: only a row without one can stand twice unnoticed.
        if (count($lines) < 2 || array_filter($lines, fn(StudentLine $l): bool => $l->studentNumber === '') === []) {
            return;
        }
        $rows = $byPlace = [];
        foreach ($lines as $line) {
            $byPlace[$line->place()] = $line;
            $rows[] = Roster::subjectOf($line, $wish->schoolId);
        }
        $dated = array_values(array_filter($rows, fn(Subject $s): bool => $s->birthDate !== ''));
        $links = [];
        foreach (Matcher::pairs($dated) as [$row, $candidate]) {
            if ($candidate->sure()) {
                $links[] = [$row->id, $candidate->subject->id, $candidate->probability];
                $this->evidence["$row->id|{$candidate->subject->id}"] = $this->evidence[
                    "{$candidate->subject->id}|$row->id"
                ] = [$candidate->evidence, $candidate->probability];
            }
        }
        // The same name with nothing against it is enough to ask, however common: two such rows may be one.
        $named = [];
        foreach ($rows as $row) {
            $names = [$row->givenKey, $row->familyKey];
            sort($names);
            $named[implode('|', $names)][] = $row->id;
        }
        foreach ($named as $places) {
            for ($i = 1; $i < min(20, count($places)); $i++) {
                $links[] = [$places[$i - 1], $places[$i], 0.5];
            }
        }
        $apart = fn(string $a, string $b): bool => self::contradict($byPlace[$a], $byPlace[$b]);
        $this->order = array_flip(array_keys($byPlace));
        foreach (Clusters::of($links, $apart) as $cluster) {
            foreach ($cluster as $place) {
                $this->mates[$place] = array_map(
                    fn(string $p): StudentLine => $byPlace[$p],
                    array_values(array_diff($cluster, [$place])),
                );
            }
        }
    }

    private static function contradict(StudentLine $a, StudentLine $b): bool
    {
        foreach (['studentNumber', 'birthDate'] as $property) {
            if ($a->{$property} !== '' && $b->{$property} !== '' && $a->{$property} !== $b->{$property}) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  callable(StudentLine): bool  $isKnown whether a row has been found to be someone known
     * @return string|null null if the row stands for itself; `skip` if it is to be left out; else the id of the open
     *     question
     */
    public function question(StudentLine $line, callable $isKnown, PlanBuilder $plan): ?string
    {
        $first = null;
        foreach ($this->mates[$line->place()] ?? [] as $mate) {
            if ($isKnown($mate) || $this->order[$mate->place()] < $this->order[$line->place()]) {
                $first ??= $mate;
            }
        }
        if ($first === null) {
            return null;
        }
        $id = substr(hash('sha256', "twice|{$first->key()}|{$line->key()}"), 0, 20);
        $answer = $this->wish->answers[$id] ?? null;
        [$evidence, $probability] = $this->evidence["{$line->place()}|{$first->place()}"] ?? [[], null];
        $plan->ask(
            (new Question(
                $id,
                $line->number,
                'Is ' . $line->where() . ' the same student as ' . $first->where() . '?',
                "{$first->name->full()} and {$line->name->full()}",
                [
                    new Choice('skip', 'The same student', 'this row is left out', 'skip'),
                    new Choice('other', 'Another student', 'makes an account for each', 'other'),
                ],
                $evidence,
                $probability,
                null,
                $line->sheet,
                'twice',
            ))->answered($answer),
        );

        return match ($answer) {
            'other' => null,
            'skip' => 'skip',
            default => $id,
        };
    }
}
