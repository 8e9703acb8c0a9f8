<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Whether something still works. */
enum LiveState: string
{
    case Live = 'live';
    case Ended = 'ended';
}
