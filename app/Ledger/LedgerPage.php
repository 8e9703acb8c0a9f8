<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;

final readonly class LedgerPage extends Resource
{
    /** @param  list<LedgerLine>  $entries newest first */
    public function __construct(public array $entries, public ?string $next) {}
}
