<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** How far somebody who was asked into a section by mail has come. */
enum StudentInvitationState: string
{
    case Invited = 'invited';
    /** They were not on record, and wait at the door: {@see StudentInvitation::joinRequestId()}. */
    case Asked = 'asked';
    case Came = 'came';
    case Declined = 'declined';
    case Withdrawn = 'withdrawn';
}
