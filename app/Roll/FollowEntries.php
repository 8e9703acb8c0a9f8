<?php

declare(strict_types=1);

namespace App\Roll;

use App\Ledger\EntryRedone;
use App\Ledger\EntryUndone;
use App\Ledger\EntryWritten;
use App\Roll\Jobs\IndexWords;

/** What the Roll keeps of people follows every entry, within its transaction. */
final class FollowEntries
{
    /** Up to so many changes of people are found by their new words as soon as they are written. */
    private const AT_ONCE = 500;

    public function __construct(private readonly KeptProblems $problems, private readonly SearchIndex $words) {}

    public function handle(EntryWritten|EntryUndone|EntryRedone $event): void
    {
        $seq = $event instanceof EntryWritten ? $event->entry->seq : $event->seq;
        $this->problems->follow($seq);
        // Whoever writes about thousands at once does not wait until each of them is found by every word.
        SearchIndex::touches($seq) > self::AT_ONCE ? IndexWords::dispatch($seq) : $this->words->follow($seq);
    }
}
