<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

enum MoveKind: string
{
    /** Out of one section and into another, on the same day. */
    case Move = 'move';
    /** Into another section, and still in those they are in. */
    case Also = 'also';
    /** Into a section, and out of the others of its kind: another homeroom. */
    case Instead = 'instead';
    case Remove = 'remove';
}
