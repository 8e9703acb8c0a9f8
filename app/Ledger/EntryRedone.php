<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Foundation\Events\Dispatchable;

/** An entry that was undone stands again; told inside the transaction. */
final readonly class EntryRedone
{
    use Dispatchable;

    public function __construct(public int $seq, public Affected $affected) {}
}
