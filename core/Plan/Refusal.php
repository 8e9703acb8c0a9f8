<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

use DomainException;

/** A wish that the rules of the job do not allow. The message says what and what to do, and is fit to be shown. */
final class Refusal extends DomainException
{
    public function __construct(string $message, public readonly ?string $field = null)
    {
        parent::__construct($message);
    }
}
