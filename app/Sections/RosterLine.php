<?php

declare(strict_types=1);

namespace App\Sections;

use App\Platform\Resource;

/** A student of a section. No address, no phone: teachers read this. */
final readonly class RosterLine extends Resource
{
    public function __construct(public string $id, public string $name, public string $grade, public string $userName, public string $begins, public string $source, public bool $signedIn, public bool $hasCard, public bool $hasGuardian)
    {
    }
}
