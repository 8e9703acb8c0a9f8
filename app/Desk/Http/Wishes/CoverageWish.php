<?php

declare(strict_types=1);

namespace App\Desk\Http\Wishes;

use App\Platform\Must;

/** Whose weeks are shown: a section's by its id, a grade's by its code, the school's where none is named. */
final readonly class CoverageWish
{
    public function __construct(#[Must(['max:26', 'regex:/^\w*$/'])] public string $part = '') {}
}
