<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Whether a card still signs in. */
enum BadgeState: string
{
    case Live = 'live';
    case Lost = 'lost';
}
