<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

/** One field of both accounts and which value stays. */
final readonly class PairField extends Resource
{
    public function __construct(
        public string $column,
        public string $label,
        public string $left,
        public string $right,
        public string $stays,
    ) {}
}
