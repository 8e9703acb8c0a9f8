<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;

/**
 * One record to insert or to update. An insert has no version and an empty `before`.
 * `before` and `after` hold the same columns in an update: only those that differ.
 */
final readonly class Change
{
    /**
     * @param  array<string, string|int|null>  $before
     * @param  array<string, string|int|null>  $after
     * @param  int|null  $row the row of the list that asked for it, counted as in the file
     */
    public function __construct(
        public Entity $entity,
        public string $id,
        public ?int $version,
        public array $before,
        public array $after,
        public string $reason,
        public ?int $row = null,
    ) {}

    public function inserts(): bool
    {
        return $this->version === null;
    }
}
