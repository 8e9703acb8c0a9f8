<?php

declare(strict_types=1);

namespace App\Platform;

/**
 * For a job that belongs to a state of a record. Where the queue is in the same database it is queued in the
 * transaction that writes the state, so that a kill between the two leaves neither without the other; elsewhere after
 * the commit, and a sweep finds what was cut off in between.
 */
trait QueuedWithState
{
    private function queueWithState(): void
    {
        Queues::inDatabase() ? $this->beforeCommit() : $this->afterCommit();
    }
}
