<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** An entry of the ledger, as far as taking it back has to know. */
final readonly class Entry
{
    /**
     * @param  int  $seq its number; the version of every record it wrote
     * @param  int  $done its place in the order of what was done: its number, or that of what did it again
     * @param  list<Written>  $written in the order it was written in
     */
    public function __construct(public int $seq, public int $done, public Action $action, public array $written) {}
}
