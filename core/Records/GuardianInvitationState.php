<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What has become of a link to a guardian. */
enum GuardianInvitationState: string
{
    case Open = 'open';
    /** Followed and answered. */
    case Used = 'used';
    /** Withdrawn, or another one was sent in its place. */
    case Ended = 'ended';
}
