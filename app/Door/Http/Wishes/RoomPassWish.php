<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Records\PassHours;

/** When a room pass works, and the poster to print. */
final readonly class RoomPassWish
{
    public function __construct(
        public PassHours $hours,
        #[Must('in:a4,letter')] public string $paper,
        public bool $pictures = false,
        #[Must('date_format:Y-m-d\\TH:i')] public ?string $until = null,
    ) {}
}
