<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Platform\Resource;

/** Somebody who has done something at a school. */
final readonly class ActorLine extends Resource
{
    public function __construct(public string $id, public string $name) {}
}
