<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;

final readonly class LedgerPage extends Resource
{
    /**
     * @param  list<LedgerLine>  $entries newest first
     * @param  list<ActorLine>  $actors whom entries can be asked for by
     * @param  string|null  $about what the person or section is called that the entries are about; null for all
     */
    public function __construct(
        public array $entries,
        public ?string $next,
        public array $actors,
        public ?string $about,
    ) {}
}
