<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Foundation\Events\Dispatchable;

/** An entry has been undone; fired inside the transaction that does it. */
final readonly class EntryUndone
{
    use Dispatchable;

    public function __construct(public int $seq, public Affected $affected) {}
}
