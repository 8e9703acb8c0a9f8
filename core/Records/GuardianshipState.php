<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** How far a guardian is connected with a student. */
enum GuardianshipState: string
{
    case Listed = 'listed';
    case Invited = 'invited';
    case Connected = 'connected';
    case Refused = 'refused';
    case Ended = 'ended';
}
