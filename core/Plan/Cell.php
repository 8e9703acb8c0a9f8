<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** One cell of a plan's table: what stands now, and what would stand. Equal where nothing changes. */
final readonly class Cell
{
    public function __construct(public string $before, public string $after) {}

    public static function same(string $value): self
    {
        return new self($value, $value);
    }

    public function differs(): bool
    {
        return $this->before !== $this->after;
    }
}
