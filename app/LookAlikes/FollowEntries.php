<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
use App\LookAlikes\Jobs\FindLookAlikes;

/** Whoever an entry touches is held against the others anew, in the background. */
final class FollowEntries
{
    public function __construct(private readonly Finding $finding) {}

    public function handle(EntryWritten|EntryUndone|EntryRedone $event): void
    {
        if ($this->finding->affected($event->affected)) {
            FindLookAlikes::dispatch();
        }
    }
}
