<?php

declare(strict_types=1);

namespace App\OneRoster\Views;

use App\Platform\Resource;

/** A key of a program that reads the rosters. */
final readonly class KeyLine extends Resource
{
    /**
     * @param  string  $id what the program calls itself (client_id)
     * @param  list<string>  $reads what it may read, in words
     * @param  string|null  $lastUsedAt null where it was never used
     * @param  string  $lastUsedFor the address asked for
     */
    public function __construct(
        public string $id,
        public string $name,
        public array $reads,
        public string $madeAt,
        public string $madeBy,
        public ?string $lastUsedAt,
        public string $lastUsedFor,
        public ?string $endedAt,
    ) {}
}
