<?php

declare(strict_types=1);

namespace Vantrel\Core\Door;

/** Whom a request lets in, and the user name they sign in with. */
final readonly class LetIn
{
    public function __construct(public string $personId, public string $signInId) {}
}
