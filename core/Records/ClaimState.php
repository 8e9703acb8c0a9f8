<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What has become of somebody's word that they are a guardian. */
enum ClaimState: string
{
    case Waiting = 'waiting';
    case Approved = 'approved';
    case Refused = 'refused';
}
