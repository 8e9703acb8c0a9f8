<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Where a join request stands: `mail` until the address it came with is confirmed. */
enum RequestState: string
{
    case Mail = 'mail';
    case Waiting = 'waiting';
    case Approved = 'approved';
    case Refused = 'refused';
}
