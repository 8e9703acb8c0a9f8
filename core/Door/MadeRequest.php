<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

use Vantrel\Core\Records\RequestState;

/** A join request that a newcomer makes, and what answers it: a mail, or a person. */
final readonly class MadeRequest
{
    public function __construct(public string $requestId, public RequestState $state) {}
}
