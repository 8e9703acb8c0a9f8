<?php

declare(strict_types=1);

namespace Vantrel\Core\Staffing;

use Vantrel\Core\Records\InvitationState;

/** What has become of an invitation by now: its state, or that nobody answered in time. */
enum InvitationStanding: string
{
    case Invited = 'invited';
    case Accepted = 'accepted';
    case Declined = 'declined';
    case Withdrawn = 'withdrawn';
    case Expired = 'expired';

    /**
     * @param  string  $expires UTC instant
     * @param  string  $now UTC instant
     */
    public static function at(InvitationState $state, string $expires, string $now): self
    {
        return $state === InvitationState::Invited && $expires <= $now ? self::Expired : self::from($state->value);
    }
}
