<?php

declare(strict_types=1);

namespace App\CommandBox\Http\Wishes;

use App\Platform\Must;

/** What was typed into the one box. */
final readonly class SaidWish
{
    public function __construct(#[Must('max:100')] public string $q) {}
}
