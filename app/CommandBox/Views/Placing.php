<?php

declare(strict_types=1);

namespace App\CommandBox\Views;

use App\Platform\Resource;

/** A student who comes into a section: what is sent to have it done as it was looked at. */
final readonly class Placing extends Resource
{
    /** @param  string|null  $from the section they leave for it; null where they stay where they are */
    public function __construct(
        public string $person,
        public ?string $from,
        public string $to,
        public string $day,
        public string $seed,
        public string $fingerprint,
    ) {}
}
