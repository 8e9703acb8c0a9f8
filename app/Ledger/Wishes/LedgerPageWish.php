<?php

declare(strict_types=1);

namespace App\Ledger\Wishes;

use App\Platform\Must;

/** From which entry on, by the order of the ledger. */
final readonly class LedgerPageWish
{
    public function __construct(#[Must('min:1')] public ?int $after = null) {}
}
