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
}
