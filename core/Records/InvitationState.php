<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Where an invitation stands; that one has expired is seen from its date. */
enum InvitationState: string
{
    case Invited = 'invited';
    case Accepted = 'accepted';
    case Declined = 'declined';
    case Withdrawn = 'withdrawn';
}
