<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

final readonly class FamilyCodeWish
{
    public function __construct(#[Must('max:40')] public string $code) {}
}
