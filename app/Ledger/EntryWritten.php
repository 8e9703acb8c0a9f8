<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\LedgerEntry;
use Illuminate\Foundation\Events\Dispatchable;
use Vantrel\Core\Plan\Plan;

/** A plan has been written; fired inside the transaction that does it. */
final readonly class EntryWritten
{
    use Dispatchable;

    public function __construct(public LedgerEntry $entry, public Plan $plan, public Affected $affected) {}
}
