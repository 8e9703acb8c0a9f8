<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Instant;
use App\Platform\Resource;

/** A later entry that works with what an undo would take back. */
final readonly class UndoFirst extends Resource
{
    public string $madeAt;

    public function __construct(public string $id, public string $title, string $madeAt)
    {
        $this->madeAt = Instant::iso($madeAt);
    }
}
