<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

/** How long what opens an account lasts, in seconds. Common practice, no source, where none is named. */
enum Lifetime: int
{
    /** A session that does not stay ends after so long without anybody at it. */
    case Idle = 7200;
    /** A session counts as just opened, and what is grave needs no password again. */
    case JustSignedIn = 600;
    /** Who asked at a door is signed in by the browser that asked so long after they were let in. */
    case LetIn = 900;
    /** A link in a mail that somebody asked for at the sign-in. */
    case LinkAskedFor = 3600;
    /** A link in a mail that the school sends, for those who read their mail once a week. */
    case LinkSent = 604_800;

    public function minutes(): int
    {
        return intdiv($this->value, 60);
    }
}
