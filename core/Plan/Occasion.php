<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** When a plan is made, and the ids it gives: what it takes besides records and a wish. */
final readonly class Occasion
{
    /**
     * @param  string  $today the day at the school, YYYY-MM-DD
     * @param  string  $now UTC instant
     */
    public function __construct(public Ids $ids, public string $today, public string $now) {}
}
