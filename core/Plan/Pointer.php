<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use Vantrel\Core\Records\Entity;

/** One record that points at another. */
final readonly class Pointer
{
    /**
     * @param  string  $column one of the references of the child
     * @param  string  $to id of the record it points at
     */
    public function __construct(public Entity $child, public string $id, public string $column, public string $to) {}
}
