<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/** Where codes and secrets get their randomness from; passed in, so that the core itself draws none. */
interface Randomness
{
    /** A whole number from 0 to $bound - 1, each equally likely. */
    public function below(int $bound): int;

    /** That many random bytes. */
    public function bytes(int $length): string;
}
