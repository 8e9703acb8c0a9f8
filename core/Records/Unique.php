<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What no two records of a kind may have alike. The database holds each of these too; a test compares. */
final readonly class Unique
{
    /**
     * @param  list<string>  $columns
     * @param string|null $where a column that has to hold `$is` for the rule to be about a record; null for all records
     * @param  bool  $not whether it is about all others instead
     */
    public function __construct(
        public array $columns,
        public ?string $where = null,
        public ?string $is = null,
        public bool $not = false,
    ) {}

    /**
     * What has to be its own among all records of the kind; null where the rule is not about this one.
     *
     * @param  array<string, string|int|null>  $values
     */
    public function key(array $values): ?string
    {
        if ($this->where !== null && (($values[$this->where] ?? null) === $this->is) === $this->not) {
            return null;
        }
        $key = [];
        foreach ($this->columns as $column) {
            $key[] = $values[$column] ?? null;
        }

        // As in SQL: what has an absent part is like nothing.
        return in_array(null, $key, true) ? null : json_encode($key, JSON_THROW_ON_ERROR);
    }

    /** @return list<string> the columns it depends on */
    public function bound(): array
    {
        return $this->where === null ? $this->columns : [...$this->columns, $this->where];
    }
}
