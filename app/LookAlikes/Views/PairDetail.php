<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Ledger\PlanView;
use App\Platform\Resource;
use Vantrel\Core\Matching\Evidence;

/** Two accounts side by side, with the evidence and the plan of merging them. */
final readonly class PairDetail extends Resource
{
    /**
     * @param  list<Evidence>  $evidence
     * @param  list<PairField>  $fields
     */
    public function __construct(
        public PairSide $left,
        public PairSide $right,
        public float $probability,
        public string $caution,
        public array $evidence,
        public array $fields,
        public PlanView $plan,
    ) {}
}
