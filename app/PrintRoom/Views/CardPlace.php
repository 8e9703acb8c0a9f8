<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** A place on a sheet: its top left corner in mm, and the card that lies there, counted from 1; null for none. */
final readonly class CardPlace extends Resource
{
    public function __construct(public float $x, public float $y, public ?int $card) {}
}
