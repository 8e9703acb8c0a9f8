<?php

declare(strict_types=1);

namespace App\Mailroom;

/** What became of a message at the gateway. */
enum Fate
{
    case Taken;
    /** Not now; it is no fault of the gateway. */
    case Later;
    /** It is no use to try again. */
    case Never;
    /** The gateway does not answer, does not let us in, or was lost before all of it had been sent. */
    case Unreached;
    /** The connection was lost after all of it had been sent, before the answer. */
    case Unknown;
}
