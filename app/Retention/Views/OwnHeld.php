<?php

declare(strict_types=1);

namespace App\Retention\Views;

use App\Platform\Resource;

/** The children of whoever is signed in, and how it stands with what is held about them. */
final readonly class OwnHeld extends Resource
{
    /** @param  list<OwnHeldChild>  $children */
    public function __construct(public array $children) {}
}
