<?php

declare(strict_types=1);

namespace App\YearTurn;

/** What a coordinator asks of a year turn. */
final readonly class YearTurnRequest
{
    /** @param  list<string>  $heldBack ids of students who stay in their grade */
    public function __construct(
        public string $name,
        public string $begins,
        public string $last,
        public array $heldBack,
        public bool $carry,
    ) {}
}
