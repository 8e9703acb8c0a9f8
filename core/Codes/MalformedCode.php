<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

use InvalidArgumentException;

/** What was typed cannot be a join code, for the reason given. */
final class MalformedCode extends InvalidArgumentException
{
    public function __construct(public readonly CodeMistake $mistake, public readonly string $symbol = '')
    {
        parent::__construct(str_replace('{{symbol}}', $symbol, $mistake->sentence()));
    }
}
