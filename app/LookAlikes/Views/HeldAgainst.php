<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;
use Vantrel\Core\Matching\Evidence;

/** What speaks for and against two accounts being one person. */
final readonly class HeldAgainst extends Resource
{
    /** @param  list<Evidence>  $evidence */
    public function __construct(
        public string $leftId,
        public string $rightId,
        public float $probability,
        public string $caution,
        public array $evidence,
    ) {}
}
