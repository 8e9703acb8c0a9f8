<?php

declare(strict_types=1);

namespace App\Retention\Http\Wishes;

use App\Platform\Must;

/** How what is held about somebody is written. */
final readonly class HeldWish
{
    public function __construct(#[Must('in:pdf,json')] public string $format = 'pdf') {}
}
