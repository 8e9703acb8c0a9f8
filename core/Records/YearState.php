<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Where a school year stands. */
enum YearState: string
{
    case Planned = 'planned';
    case Current = 'current';
    case Closed = 'closed';
}
