<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Closure;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Snapshot;

/** What a history is played on: records and a ledger, in memory or in the database. */
interface House
{
    public function snapshot(): Snapshot;

    public function apply(Plan $plan, Action $action): int;

    /**
     * Makes a plan and applies it with what it is about locked.
     *
     * @param  array<string, list<string>>  $rows table to ids
     * @param  Closure(): Plan  $plan
     */
    public function holding(array $rows, Closure $plan, Action $action): int;

    /**
     * @return list<string> why what stayed did, in the words of {@see \Vantrel\Core\Plan\Stay}; empty where all went
     *     back
     */
    public function undo(int $seq, bool $together): array;

    public function redo(int $seq): void;

    public function signIn(string $signInId): void;

    /**
     * @return array<int, bool> numbers of entries in the order they were done or done again, and whether each is undone
     */
    public function entries(): array;
}
