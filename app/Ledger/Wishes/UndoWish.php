<?php

declare(strict_types=1);

namespace App\Ledger\Wishes;

use App\Platform\Must;

/** Later entries that go back first, and what undoing was looked at. */
final readonly class UndoWish
{
    /** @param  list<string>  $first */
    public function __construct(
        #[Must('max:500', each: 'ulid')] public array $first = [],
        #[Must('size:64')] public ?string $fingerprint = null,
    ) {}
}
