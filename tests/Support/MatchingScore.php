<?php

declare(strict_types=1);

namespace Tests\Support;

use Vantrel\Core\Matching\Matcher;

/**
 * Counts over lists whose truth is known: what was matched by itself, asked, missed, and how well stated chances hold.
 */
final class MatchingScore
{
    public int $rows = 0;

    public int $auto = 0;

    public int $autoRight = 0;

    public int $asked = 0;

    /** Rows that are someone known. */
    public int $true = 0;

    /** Of these, matched rightly by themselves or asked with the right person among the choices. */
    public int $found = 0;

    /**
     * @var array<int, array{int, float, int}> tenth of the stated chance to rows, sum of chances, rows that were right
     */
    public array $bins = [];

    /** @var list<string> */
    public array $wrong = [];

    public function add(MixedUpList $list): void
    {
        $linkage = Matcher::link($list->rows, $list->known);
        foreach ($list->rows as $row) {
            $this->rows++;
            $truth = $list->truth[$row->id];
            $this->true += $truth === null ? 0 : 1;
            $candidates = $linkage->candidates($row->id);
            $best = $linkage->assigned($row->id);
            foreach (array_slice($candidates, 0, 3) as $candidate) {
                $bin = $candidate->probability >= 0.99 ? 10 : (int) floor($candidate->probability * 10);
                $this->bins[$bin] ??= [0, 0.0, 0];
                $this->bins[$bin][0]++;
                $this->bins[$bin][1] += $candidate->probability;
                $this->bins[$bin][2] += $candidate->subject->id === $truth ? 1 : 0;
            }
            if ($best !== null && $best->sure()) {
                $this->auto++;
                $this->autoRight += $best->subject->id === $truth ? 1 : 0;
                $this->found += $best->subject->id === $truth ? 1 : 0;
                if ($best->subject->id !== $truth) {
                    $this->wrong[] = json_encode(
                        [$row, $best->subject, $truth, $best->probability],
                        JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
                    );
                }
            } elseif ($candidates !== []) {
                $this->asked++;
                $this->found += in_array(
                    $truth,
                    array_map(fn($c) => $c->subject->id, array_slice($candidates, 0, 3)),
                    true,
                )
                    ? 1
                    : 0;
            }
        }
    }

    public function precision(): float
    {
        return $this->auto === 0 ? 1.0 : $this->autoRight / $this->auto;
    }

    public function recall(): float
    {
        return $this->true === 0 ? 1.0 : $this->found / $this->true;
    }

    public function share(): float
    {
        return $this->asked / max(1, $this->rows);
    }
}
