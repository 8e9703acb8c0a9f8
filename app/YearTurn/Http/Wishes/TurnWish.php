<?php

declare(strict_types=1);

namespace App\YearTurn\Http\Wishes;

use App\Platform\Must;

/** The year that follows, who is held back, and whether sections are carried over. */
final readonly class TurnWish
{
    /** @param  list<string>  $heldBack */
    public function __construct(
        #[Must('max:20')] public string $name,
        #[Must('date_format:Y-m-d')] public string $begins,
        #[Must('date_format:Y-m-d')] public string $last,
        public bool $carry,
        #[Must('max:2000', each: 'ulid')] public array $heldBack = [],
    ) {}
}
