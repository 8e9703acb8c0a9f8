<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;

/** One record an entry changed, in words. */
final readonly class LedgerChange extends Resource
{
    public function __construct(
        public string $what,
        public string $record,
        public string $before,
        public string $after,
        public string $reason,
    ) {}
}
