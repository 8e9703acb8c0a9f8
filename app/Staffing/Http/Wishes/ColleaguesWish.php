<?php

declare(strict_types=1);

namespace App\Staffing\Http\Wishes;

use App\Platform\Must;

/** A part of the name of a colleague. */
final readonly class ColleaguesWish
{
    public function __construct(#[Must('max:80')] public string $q = '') {}
}
