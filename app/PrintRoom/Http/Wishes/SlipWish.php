<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;

/** A slip that came back, by its code as typed or scanned. */
final readonly class SlipWish
{
    public function __construct(#[Must('max:60')] public string $slip) {}
}
