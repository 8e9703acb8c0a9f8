<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/** Which of the students that were chosen something is printed for. */
enum Printed: string
{
    case Everyone = 'everyone';
    case NeverSignedIn = 'never_signed_in';
    case NoCard = 'no_card';
    case CardLost = 'card_lost';
    /** In one of the sections since a day. */
    case Since = 'since';
    /** Whose letter has not come back signed. */
    case SlipOut = 'slip_out';
}
