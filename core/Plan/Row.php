<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/**
 * One record as it stood when the snapshot was taken: its id, its version (counted up by every write) and its columns.
 */
final readonly class Row
{
    /** @param  array<string, string|int|null>  $values column to value; dates as YYYY-MM-DD, instants as UTC `YYYY-MM-DD HH:MM:SS` */
    public function __construct(public string $id, public int $version, public array $values)
    {
    }

    /** The column as text; null and absent read as ''. */
    public function text(string $column): string
    {
        return (string) ($this->values[$column] ?? '');
    }

    /** The column as text, or null where it is empty. */
    public function maybe(string $column): ?string
    {
        $value = $this->values[$column] ?? null;

        return $value === null || $value === '' ? null : (string) $value;
    }

    /** @param  array<string, string|int|null>  $values */
    public function with(array $values): self
    {
        return new self($this->id, $this->version + 1, [...$this->values, ...$values]);
    }
}
