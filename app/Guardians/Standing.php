<?php

declare(strict_types=1);

namespace App\Guardians;

/** How a guardian stands with a child, as the worklist asks for it. */
enum Standing: string
{
    case Listed = 'listed';
    case Invited = 'invited';
    /** Reminded a week ago or more, or the link is over, and nobody answered. */
    case Unanswered = 'unanswered';
    /** Asked to be connected, and the school has yet to look. */
    case Awaiting = 'awaiting';
    case Connected = 'connected';
    case Refused = 'refused';
    case Ended = 'ended';
    case Restricted = 'restricted';
    case NoAddress = 'no_address';
}
