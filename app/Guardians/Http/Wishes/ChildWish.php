<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

final readonly class ChildWish
{
    public function __construct(#[Must('ulid')] public string $student) {}
}
