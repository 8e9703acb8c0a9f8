<?php

declare(strict_types=1);

namespace App\Ledger\Wishes;

/** Whether later entries are to go back with an entry. */
final readonly class OutlookWish
{
    public function __construct(public bool $together = false) {}
}
