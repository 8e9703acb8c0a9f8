<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Where an account stands. A reserve is one made ahead, for a student who turns up. */
enum PersonState: string
{
    case Active = 'active';
    case Left = 'left';
    case Merged = 'merged';
    case Reserve = 'reserve';
}
