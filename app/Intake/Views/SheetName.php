<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

final readonly class SheetName extends Resource
{
    /**
     * @param  string  $label '' where there is one sheet
     * @param  int  $width its columns
     */
    public function __construct(public string $label, public int $rows, public int $width) {}
}
