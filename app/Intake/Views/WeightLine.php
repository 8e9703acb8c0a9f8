<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

/**
 * How often two records of one person agree at one level of a field: as published, as in force here, and as a list
 * suggests.
 */
final readonly class WeightLine extends Resource
{
    /** @param  float  $chance how often two records of different people agree so */
    public function __construct(
        public string $field,
        public string $level,
        public float $published,
        public float $inForce,
        public ?float $estimated,
        public float $chance,
    ) {}
}
