<?php

declare(strict_types=1);

namespace App\PrintRoom;

/** What can be printed of a section's code. */
enum WallKind: string
{
    /** Read across the room. */
    case Poster = 'poster';
    /** Cut apart and handed out. */
    case Slips = 'slips';
    /** Step by step, in a language. */
    case Handout = 'handout';
}
