<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** A section has one open code at most. */
enum CodeState: string
{
    case Open = 'open';
    case Closed = 'closed';
}
