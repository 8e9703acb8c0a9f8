<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** A change of one's address or number that waits for its codes. */
final readonly class ContactBegun extends Resource
{
    /** @param  bool  $old whether a code has gone to the old one too */
    public function __construct(public bool $old) {}
}
