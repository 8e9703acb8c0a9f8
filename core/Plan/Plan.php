<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;

/**
 * Everything a bulk action would do, before it is done. A value: equal inputs give equal plans, byte for byte.
 */
final readonly class Plan
{
    /**
     * @param  list<Change>  $changes
     * @param  list<PlanRow>  $rows
     * @param  list<Question>  $questions
     * @param  list<string>  $warnings sentences worth reading before applying
     * @param  list<string>  $blockers sentences that say why it cannot be applied now
     * @param  list<Tally>  $tallies
     * @param  string  $sentence what applying does, in one sentence
     */
    public function __construct(
        public string $title,
        public string $sentence,
        public array $changes,
        public array $rows = [],
        public array $questions = [],
        public array $warnings = [],
        public array $blockers = [],
        public array $tallies = [],
    ) {}

    public function isEmpty(): bool
    {
        return $this->changes === [];
    }

    /** @return list<Question> */
    public function openQuestions(): array
    {
        return array_values(array_filter($this->questions, fn(Question $q): bool => $q->open()));
    }

    /** @return array<string, int> verdict to number of rows, every verdict of a list present */
    public function verdicts(): array
    {
        $counts = array_fill_keys(['new', 'update', 'same', 'ask', 'cannot'], 0);
        foreach ($this->rows as $row) {
            $counts[$row->verdict->value] = ($counts[$row->verdict->value] ?? 0) + 1;
        }

        return $counts;
    }

    public function countOf(Entity $entity): int
    {
        return count(array_filter($this->changes, fn(Change $c): bool => $c->entity === $entity));
    }

    /** SHA-256 over all that the plan would do: what a person looked at is what gets applied, or nothing is. */
    public function fingerprint(): string
    {
        return hash(
            'sha256',
            json_encode(
                [
                    $this->title,
                    $this->changes,
                    array_map(fn(Question $q): array => $q->asks(), $this->questions),
                    $this->blockers,
                ],
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_PRESERVE_ZERO_FRACTION,
            ),
        );
    }
}
