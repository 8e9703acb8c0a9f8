<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

/** What becomes of earlier cards, and of names that do not fit. */
final readonly class CardsWish
{
    public function __construct(public bool $lost = false, public bool $shorten = false) {}
}
