<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;
use Vantrel\Core\Matching\Estimation;
use Vantrel\Core\Matching\Weights;

/** What the matcher goes by at a school. */
final readonly class WeightTable extends Resource
{
    /**
     * @param  bool  $own whether the school has weights of its own
     * @param  int|null  $pairs of this list that the estimate takes for one person; null where nothing was estimated
     * @param  list<WeightLine>  $lines
     */
    public function __construct(public bool $own, public ?int $pairs, public array $lines) {}

    public static function of(Weights $inForce, bool $own, ?Estimation $estimation): self
    {
        $published = Weights::published();
        $lines = [];
        foreach (Weights::levels() as $field => $levels) {
            foreach ($levels as $level) {
                $lines[] = new WeightLine(
                    $field,
                    $level,
                    $published->m($field, $level),
                    $inForce->m($field, $level),
                    $estimation?->m[$field][$level] ?? null,
                    $published->u($field, $level),
                );
            }
        }

        return new self($own, $estimation === null ? null : (int) round($estimation->matches), $lines);
    }
}
