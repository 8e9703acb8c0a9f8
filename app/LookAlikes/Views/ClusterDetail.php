<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Ledger\PlanView;
use App\Platform\Resource;
use Vantrel\Core\LookAlikes\MergedField;
use Vantrel\Core\Records\PersonKind;

/** Accounts side by side, with the evidence and the plan of merging them. */
final readonly class ClusterDetail extends Resource
{
    /**
     * @param  list<AccountSide>  $accounts in the order asked
     * @param  string  $why the one that stays stays, in a few words
     * @param  list<MergedField>  $fields
     * @param  list<HeldAgainst>  $evidence each two of them, likeliest first
     */
    public function __construct(
        public PersonKind $kind,
        public array $accounts,
        public string $why,
        public array $fields,
        public array $evidence,
        public PlanView $plan,
    ) {}
}
