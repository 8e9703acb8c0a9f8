<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** Whether somebody has shown that an address is theirs. */
enum AddressState: string
{
    case Claimed = 'claimed';
    case Confirmed = 'confirmed';
}
