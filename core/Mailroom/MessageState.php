<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

/** How far a message has come. */
enum MessageState: string
{
    /** No gateway is set: it stays here, to be read. */
    case Kept = 'kept';
    /** It goes out when its time has come. */
    case Waiting = 'waiting';
    /** A worker is giving it to the gateway. */
    case Handing = 'handing';
    case Sent = 'sent';
    /** The worker was lost between the gateway and its own mark: it may have gone, and is not sent again by itself. */
    case Doubtful = 'doubtful';
    /** The gateway would not take it, or never answered. */
    case Refused = 'refused';
    /** It was taken, and came back. */
    case Bounced = 'bounced';
    /** Whom it was for may not, or does not want to, hear any more. */
    case Stopped = 'stopped';

    /** @return list<self> what a person has to look at */
    public static function amiss(): array
    {
        return [self::Doubtful, self::Refused, self::Bounced];
    }
}
