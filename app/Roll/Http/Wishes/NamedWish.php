<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;

/** A pasted list of students, one a line: a number, an address, a user name or a whole name each. */
final readonly class NamedWish
{
    public function __construct(#[Must('max:100000')] public string $lines) {}
}
