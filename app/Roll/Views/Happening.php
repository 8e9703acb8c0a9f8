<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Ledger\FieldChange;
use App\Platform\Resource;

final readonly class Happening extends Resource
{
    /** @param  list<FieldChange>  $changes of the person's own fields */
    public function __construct(
        public string $entryId,
        public string $title,
        public string $reason,
        public string $at,
        public bool $undone,
        public array $changes,
    ) {}
}
