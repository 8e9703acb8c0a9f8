<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/** What a message is about: it decides whether it may still go out when its turn comes. */
enum MessageKind: string
{
    /** Of somebody's own account: links, codes, notices of changes. */
    case Account = 'account';
    /** Asks a colleague into a section. */
    case Staff = 'staff';
    /** Asks a guardian to connect; only while it stands. */
    case Guardian = 'guardian';
    /** Tells a guardian what is missing, coming and new; only while they want it. */
    case Digest = 'digest';
    /** Written by somebody of the school, to one of many. */
    case Letter = 'letter';
    /** Tells a coordinator what came of a night. */
    case Report = 'report';

    public function label(): string
    {
        return match ($this) {
            self::Account => 'account',
            self::Staff => 'colleague invited',
            self::Guardian => 'guardian invited',
            self::Digest => 'digest',
            self::Letter => 'letter',
            self::Report => 'report',
        };
    }
}
