<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use RuntimeException;

/** What a browser answered is not of the passkey, the question or the address it should be. */
final class NotThisPasskey extends RuntimeException
{
    /**
     * @param  string  $why for the log: whoever is turned away is told one sentence for all
     * @param  bool  $copied whether the answer was right and its count was not
     */
    public function __construct(string $why, public readonly bool $copied = false)
    {
        parent::__construct($why);
    }
}
