<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** That two who look alike are two people. */
final readonly class KnownApart extends Record
{
    public static function entity(): Entity
    {
        return Entity::KnownApart;
    }

    public function leftId(): string
    {
        return $this->text('left_id');
    }

    public function rightId(): string
    {
        return $this->text('right_id');
    }
}
