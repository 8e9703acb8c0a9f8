<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Why somebody waits to be let in instead of coming in by the code. */
enum RequestCause: string
{
    case Newcomer = 'newcomer';
    case Domain = 'domain';
    case Under13 = 'under_13';
    /** They came by the link of an invitation, and may be somebody the school knows. */
    case Invited = 'invited';
    /** Many wrong codes came that day: a right one may have been guessed. */
    case ManyCodes = 'many_codes';
}
