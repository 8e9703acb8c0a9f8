<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\PassHours;

/** The room pass that works now. Its code is on paper only. */
final readonly class RoomPassLine extends Resource
{
    /**
     * @param  string|null  $until day and time by the clocks of the school
     */
    public function __construct(
        public PassHours $hours,
        public bool $pictures,
        public string $madeAt,
        public ?string $until,
    ) {}
}
