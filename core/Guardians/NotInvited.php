<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

/** Why a guardian gets no invitation. */
enum NotInvited: string
{
    case Connected = 'connected';
    case Invited = 'invited';
    case NoAddress = 'no_address';
    case Restricted = 'restricted';
    case Said = 'said_no';
    case Ended = 'ended';
    case ChildLeft = 'child_left';

    /** As in "12 have no address". */
    public function label(int $count): string
    {
        $one = $count === 1;

        return match ($this) {
            self::Connected => $one ? 'is connected already' : 'are connected already',
            self::Invited => $one ? 'is invited already' : 'are invited already',
            self::NoAddress => $one ? 'has no mail address' : 'have no mail address',
            self::Restricted => $one ? 'has restricted contact' : 'have restricted contact',
            self::Said => $one ? 'said that the child is not theirs' : 'said that the child is not theirs',
            self::Ended => $one ? 'was disconnected' : 'were disconnected',
            self::ChildLeft => $one ? 'has a child who left' : 'have a child who left',
        };
    }
}
