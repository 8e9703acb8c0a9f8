<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Records\GuardianshipState;

/** What a message is about: it decides whether it may still go out when its turn comes. */
enum MessageKind: string
{
    /** Of somebody's own account: links, codes, notices of changes. */
    case Account = 'account';
    /** Asks a colleague into a section. */
    case Staff = 'staff';
    /** Asks a student, or a family for one, into a section; only while the invitation waits. */
    case Student = 'student';
    /** Asks a guardian to connect; only while it stands. */
    case Guardian = 'guardian';
    /** Tells a guardian what is missing, coming and new; only while they want it. */
    case Digest = 'digest';
    /** Written by somebody of the school, to one of many. */
    case Letter = 'letter';
    /** Tells a coordinator what came of a night. */
    case Report = 'report';

    /**
     * How a guardian has to stand to a child they are told of: asked about when it is written, and again in the moment
     * it goes out. Whoever never connected can still be written to; whoever is kept away never is, whatever this says.
     *
     * @return list<GuardianshipState>
     */
    public function heardBy(): array
    {
        return match ($this) {
            self::Guardian => [GuardianshipState::Invited],
            self::Digest => [GuardianshipState::Connected],
            default => [GuardianshipState::Listed, GuardianshipState::Invited, GuardianshipState::Connected],
        };
    }

    /** Whose turn comes first: 0 for what somebody may be waiting for, 1 for what is for many. */
    public function turn(): int
    {
        return match ($this) {
            self::Digest, self::Letter => 1,
            default => 0,
        };
    }

    /**
     * Whether it goes to the address somebody has now where it is sent again, since one may have been put right. What
     * carries a link was for the address it went to.
     */
    public function goesToAddressNow(): bool
    {
        return match ($this) {
            self::Digest, self::Letter => true,
            default => false,
        };
    }

    public function label(): string
    {
        return match ($this) {
            self::Account => 'account',
            self::Staff => 'colleague invited',
            self::Student => 'student invited',
            self::Guardian => 'guardian invited',
            self::Digest => 'digest',
            self::Letter => 'letter',
            self::Report => 'report',
        };
    }
}
