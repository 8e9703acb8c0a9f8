<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;

final readonly class LedgerDetail extends Resource
{
    /** @param  list<LedgerChange>  $changes the first 200 */
    public function __construct(public LedgerLine $entry, public array $changes) {}
}
