<?php

declare(strict_types=1);

namespace App\Mailroom;

/** What became of a message at the gateway, and what that said. */
final readonly class Handed
{
    public function __construct(public Fate $fate, public string $said = '') {}
}
