<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

/** What becomes of a guardian whose address or number is confirmed, and on record with the child. */
enum GuardianPolicy: string
{
    case AtOnce = 'at_once';
    case Check = 'check';
}
