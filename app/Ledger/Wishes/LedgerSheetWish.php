<?php

declare(strict_types=1);

namespace App\Ledger\Wishes;

use App\Platform\SheetFormat;

/** A ledger as a file, in the bounds that {@see LedgerPageWish} sets; whether with every record that was changed. */
final readonly class LedgerSheetWish
{
    public function __construct(public SheetFormat $format, public bool $records = false) {}
}
