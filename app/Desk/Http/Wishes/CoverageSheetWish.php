<?php

declare(strict_types=1);

namespace App\Desk\Http\Wishes;

use App\Platform\SheetFormat;

/** Coverage as a file. */
final readonly class CoverageSheetWish
{
    public function __construct(public SheetFormat $format) {}
}
