<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

final readonly class ColumnView extends Resource
{
    /**
     * @param  int  $place column of the sheet it stands in, -1 where headings between the rows say it
     * @param  list<string>  $samples
     */
    public function __construct(
        public int $index,
        public int $place,
        public string $heading,
        public array $samples,
        public ?string $field,
        public string $why,
    ) {}
}
