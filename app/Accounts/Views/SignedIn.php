<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** What signing in has led to: the person, or that a second factor is awaited. */
final readonly class SignedIn extends Resource
{
    /**
     * @param  string  $needs '', second_factor, or instead: somebody else is signed in here, who is in `me`
     * @param  bool  $passkey whether the second factor can be a passkey
     */
    public function __construct(public ?Me $me, public string $needs, public bool $passkey = false) {}
}
