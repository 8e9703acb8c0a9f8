<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

final readonly class RefuseWish
{
    public function __construct(#[Must('max:300')] public string $reason) {}
}
