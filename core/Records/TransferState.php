<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Where a request to another school stands. */
enum TransferState: string
{
    case Waiting = 'waiting';
    case Accepted = 'accepted';
    case Refused = 'refused';
    case Withdrawn = 'withdrawn';
}
