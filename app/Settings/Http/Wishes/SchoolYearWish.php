<?php

declare(strict_types=1);

namespace App\Settings\Http\Wishes;

use App\Platform\Must;

/** A school year with its first and last day. */
final readonly class SchoolYearWish
{
    public function __construct(
        #[Must('max:20')] public string $name,
        #[Must('date_format:Y-m-d')] public string $beginsOn,
        #[Must('date_format:Y-m-d')] public string $lastOn,
    ) {}
}
