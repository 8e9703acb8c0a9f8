<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

/** A student on record, by what another program may know them by. */
final readonly class KnownUser
{
    /**
     * @param  string  $id as our rosters give it
     * @param  string  $now id of whom they were merged into since, else their own
     */
    public function __construct(
        public string $id,
        public ?string $number,
        public ?string $userName,
        public string $now,
    ) {}
}
