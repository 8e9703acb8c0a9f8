<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Whether a role still holds. */
enum RoleState: string
{
    case Active = 'active';
    case Ended = 'ended';
}
