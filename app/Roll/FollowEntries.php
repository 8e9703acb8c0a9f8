<?php

declare(strict_types=1);

namespace App\Roll;

use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;

/** What the Roll keeps of people follows every entry, within its transaction. */
final class FollowEntries
{
    public function __construct(private readonly KeptProblems $problems, private readonly SearchIndex $words) {}

    public function handle(EntryWritten|EntryUndone|EntryRedone $event): void
    {
        $seq = $event instanceof EntryWritten ? $event->entry->seq : $event->seq;
        $this->problems->follow($seq);
        $this->words->follow($seq);
    }
}
