<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** How many of one thing a plan does, ready to be read out: "37 students". */
final readonly class Tally
{
    public function __construct(public string $key, public int $count, public string $label) {}
}
