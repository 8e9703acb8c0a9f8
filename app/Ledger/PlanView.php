<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use App\Platform\Resource;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Tally;

/** A plan as it is shown. Applying it takes the seed and the fingerprint back: what was looked at is what is done. */
final readonly class PlanView extends Resource
{
    /**
     * @param  list<Tally>  $tallies
     * @param  list<string>  $warnings
     * @param  list<string>  $blockers
     * @param  array<string, int>  $verdicts
     * @param  list<PlanRow>  $rows
     * @param  list<Question>  $questions
     * @param  string|null  $undoUntil instant until which it could be undone, were it done now; null where it cannot be
     */
    public function __construct(
        public string $title,
        public string $sentence,
        public array $tallies,
        public array $warnings,
        public array $blockers,
        public array $verdicts,
        public array $rows,
        public array $questions,
        public int $changes,
        public string $seed,
        public string $fingerprint,
        public ?string $undoUntil,
    ) {}

    public static function of(Plan $plan, string $seed, Action $action): self
    {
        return new self(
            $plan->title,
            $plan->sentence,
            $plan->tallies,
            $plan->warnings,
            $plan->blockers,
            array_filter($plan->verdicts()),
            $plan->rows,
            $plan->questions,
            count($plan->changes),
            $seed,
            $plan->fingerprint(),
            LedgerEntry::openFromNow($action),
        );
    }
}
