<?php

declare(strict_types=1);

namespace App\Platform;

use Illuminate\Foundation\Events\Dispatchable;

/** Somebody has signed in with a user name of theirs for the first time; no entry of the ledger says so. */
final readonly class SignedIn
{
    use Dispatchable;

    public function __construct(public string $personId) {}
}
