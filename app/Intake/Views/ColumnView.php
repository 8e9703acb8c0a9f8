<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

final readonly class ColumnView extends Resource
{
    /** @param  list<string>  $samples */
    public function __construct(
        public int $index,
        public string $heading,
        public array $samples,
        public ?string $field,
        public string $why,
    ) {}
}
