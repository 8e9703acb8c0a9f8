<?php

declare(strict_types=1);

namespace App\Desk\Http\Wishes;

use App\Platform\Must;

/** What is put off, until which day, and why. */
final readonly class PutOffWish
{
    public function __construct(
        #[Must('max:30|regex:/^[a-z_]+$/')] public string $loop,
        #[Must('date_format:Y-m-d')] public string $until,
        #[Must('max:200')] public string $reason,
    ) {}
}
