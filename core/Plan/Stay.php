<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** Why an undo lets a record stay as it is. */
enum Stay: string
{
    case Changed = 'changed since';
    case SignedIn = 'signed in to since';
    case InUse = 'in use since';
    case Worked = 'has worked here since';
    case Taken = 'its place has been taken since';
    case Closed = 'belongs to what has been merged, archived or closed since';
    case Gone = 'belonged to what is gone';
    /** It cannot be parted from one that stays, and is not named beside it. */
    case Belongs = '';
}
