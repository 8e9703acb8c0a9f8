<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

/** What matching a list against everyone known has found: for each row who it may be, and who it is taken for. */
final readonly class Linkage
{
    /**
     * @param array<string, list<Candidate>> $candidates row's id to those likelier than {@see Matcher::OTHER},
     *     likeliest first
     * @param array<string, string> $assigned row's id to the id of the one candidate it gets when every person can be
     *     one row only
     * @param array<string, array{string, string}> $apart row's id to someone who is alike and yet another, and a word
     *     on it: "Ada Haddad: a twin"
     * @param array<string, array{Candidate, string}> $taken row's id to someone likely whom another row is for certain,
     *     and that row's id
     */
    public function __construct(
        private array $candidates,
        private array $assigned,
        private array $apart,
        private array $taken,
        private Comparator $comparator,
        private int $people,
    ) {}

    /**
     * Two people held against each other by themselves, rivals left aside: for a pair that somebody else has chosen.
     */
    public function judge(Subject $row, Subject $person): Candidate
    {
        $levels = $this->comparator->levels($row, $person);
        [$same, $sibling] = $this->comparator->score($levels, $row, $person);
        $n = max(2, $this->people);
        $a = (0.5 * 2 ** max(-60.0, min(60.0, $same))) / $n;
        $b = (Matcher::SIBLING_SHARE * 2 ** max(-60.0, min(60.0, $sibling))) / $n;

        return new Candidate(
            $person,
            $this->comparator->evidence($row, $person),
            $a / (0.5 + $a + $b),
            Caution::of($levels),
        );
    }

    /** @return list<string> ids of everyone who may be some row */
    public function people(): array
    {
        $ids = [];
        foreach ($this->candidates as $list) {
            foreach ($list as $candidate) {
                $ids[$candidate->subject->id] = true;
            }
        }

        return array_map(strval(...), array_keys($ids));
    }

    /** @return list<Candidate> */
    public function candidates(string $rowId): array
    {
        return $this->candidates[$rowId] ?? [];
    }

    /** Who the row is taken for in the best one-to-one assignment; null if nobody is left for it. */
    public function assigned(string $rowId): ?Candidate
    {
        foreach ($this->candidates[$rowId] ?? [] as $candidate) {
            if ($candidate->subject->id === ($this->assigned[$rowId] ?? null)) {
                return $candidate;
            }
        }

        return null;
    }

    /** @return array{Candidate, string}|null someone likely whom another row is for certain, and that row's id */
    public function taken(string $rowId): ?array
    {
        return $this->taken[$rowId] ?? null;
    }

    /** @return array{string, string}|null id of someone who is alike and yet another, and a word on it */
    public function apart(string $rowId): ?array
    {
        return $this->apart[$rowId] ?? null;
    }
}
