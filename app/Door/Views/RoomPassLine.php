<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** The room pass that works now. Its code is on paper only. */
final readonly class RoomPassLine extends Resource
{
    /**
     * @param  string  $hours school or any
     * @param  string|null  $until day and time by the clocks of the school
     */
    public function __construct(public string $hours, public bool $pictures, public string $madeAt, public ?string $until)
    {
    }
}
