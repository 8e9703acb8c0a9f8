<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;

/** Work in one line. */
final readonly class WorkLineWish
{
    public function __construct(#[Must('max:300')] public string $text) {}
}
