<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonState;

/** Why a guardian gets no invitation. */
enum NotInvited: string
{
    case Connected = 'connected';
    case Invited = 'invited';
    case NoAddress = 'no_address';
    case CameBack = 'came_back';
    case Restricted = 'restricted';
    case Said = 'said_no';
    case Ended = 'ended';
    case ChildLeft = 'child_left';

    /**
     * @param  bool  $works whether a link sent to the same address works still
     * @param  bool  $bounced whether mail to the address came back
     */
    public static function why(Guardianship $link, Person $guardian, Person $student, bool $works, bool $bounced): ?self
    {
        return match (true) {
            // Whoever asks why is told by the tie itself, if they may know.
            $link->restriction() !== null => self::Restricted,
            $link->state() === GuardianshipState::Connected => self::Connected,
            $link->state() === GuardianshipState::Refused => self::Said,
            $link->state() === GuardianshipState::Ended => self::Ended,
            $student->state() !== PersonState::Active || $guardian->state() !== PersonState::Active => self::ChildLeft,
            $guardian->email() === null => self::NoAddress,
            $link->state() === GuardianshipState::Invited && $works => self::Invited,
            $bounced => self::CameBack,
            default => null,
        };
    }

    /** As in "12 have no address". */
    public function label(int $count): string
    {
        $one = $count === 1;

        return match ($this) {
            self::Connected => $one ? 'is connected already' : 'are connected already',
            self::Invited => $one ? 'is invited already' : 'are invited already',
            self::NoAddress => $one ? 'has no mail address' : 'have no mail address',
            self::CameBack => $one
                ? 'has an address that mail came back from (look in the Mailroom)'
                : 'have an address that mail came back from (look in the Mailroom)',
            self::Restricted => $one ? 'has restricted contact' : 'have restricted contact',
            self::Said => $one ? 'said that the child is not theirs' : 'said that the child is not theirs',
            self::Ended => $one ? 'was disconnected' : 'were disconnected',
            self::ChildLeft => $one ? 'has a child who left' : 'have a child who left',
        };
    }
}
