<?php

declare(strict_types=1);

namespace App\Settings\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\YearState;

/** A school year. */
final readonly class YearLine extends Resource
{
    public function __construct(
        public string $id,
        public string $name,
        public string $beginsOn,
        public string $lastOn,
        public YearState $state,
        public int $sections,
    ) {}
}
