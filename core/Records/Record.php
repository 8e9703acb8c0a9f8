<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

use LogicException;

/**
 * One record as it stood when it was read: its id, its version (the number of the ledger entry that wrote it last) and
 * its columns. Each kind says its columns by name; one that was not read fails, and does not pass for an empty one.
 */
abstract readonly class Record
{
    /**
     * @param array<string, string|int|null> $values column to value; dates as YYYY-MM-DD, instants as UTC `YYYY-MM-DD
     *     HH:MM:SS`
     */
    final public function __construct(public string $id, public int $version, public array $values) {}

    abstract public static function entity(): Entity;

    /** @param  array<string, string|int|null>  $values that are other now */
    public function with(array $values): static
    {
        return new static($this->id, $this->version + 1, [...$this->values, ...$values]);
    }

    /** A column as text, for those whose name is known at run time only; null where it is empty. */
    public function field(string $column): ?string
    {
        $value = $this->values[$column] ?? $this->absent($column);

        return $value === null || $value === '' ? null : (string) $value;
    }

    /** The column as text; an absent value is ''. */
    protected function text(string $column): string
    {
        return (string) ($this->values[$column] ?? $this->absent($column));
    }

    protected function whole(string $column): ?int
    {
        $value = $this->field($column);

        return $value === null ? null : (int) $value;
    }

    private function absent(string $column): null
    {
        return array_key_exists($column, $this->values)
            ? null
            : throw new LogicException(static::entity()->value . ".$column was not read.");
    }
}
