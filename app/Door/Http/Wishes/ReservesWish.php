<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

/** How many reserve accounts to make. */
final readonly class ReservesWish
{
    public function __construct(public int $count) {}
}
