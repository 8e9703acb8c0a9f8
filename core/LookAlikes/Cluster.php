<?php

declare(strict_types=1);

namespace Vantrel\Core\LookAlikes;

/** Accounts that may all be one person, by the pairs that hold them together. */
final readonly class Cluster
{
    /**
     * @param  list<string>  $ids smallest first
     * @param  non-empty-list<LookAlike>  $pairs likeliest first
     */
    private function __construct(public array $ids, public array $pairs) {}

    /**
     * Pairs by the cluster they belong to.
     *
     * @param  list<LookAlike>  $pairs
     * @return list<self> likeliest first
     */
    public static function gather(array $pairs): array
    {
        usort(
            $pairs,
            fn(LookAlike $a, LookAlike $b): int => [$b->probability, $a->leftId, $a->rightId] <=> [
                $a->probability,
                $b->leftId,
                $b->rightId,
            ],
        );
        $by = [];
        foreach ($pairs as $pair) {
            $by[$pair->cluster][] = $pair;
        }
        $clusters = [];
        foreach ($by as $of) {
            $ids = [];
            foreach ($of as $pair) {
                $ids[$pair->leftId] = $ids[$pair->rightId] = true;
            }
            ksort($ids, SORT_STRING);
            $clusters[] = new self(array_map(strval(...), array_keys($ids)), $of);
        }

        return $clusters;
    }

    /** How likely its likeliest two are one. */
    public function probability(): float
    {
        return $this->pairs[0]->probability;
    }

    /** What has to be thought of before any two of them are merged; '' for nothing. */
    public function caution(): string
    {
        foreach ($this->pairs as $pair) {
            if ($pair->caution !== '') {
                return $pair->caution;
            }
        }

        return '';
    }

    /** Whether none of it needs a second thought, and all of it stands side by side. */
    public function isClear(): bool
    {
        return count($this->ids) <= MergePlanner::MOST &&
            array_filter($this->pairs, fn(LookAlike $p): bool => !$p->isClear()) === [];
    }
}
