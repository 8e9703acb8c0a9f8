<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** The passkeys of whoever is signed in. */
final readonly class PasskeyPage extends Resource
{
    /**
     * @param  list<PasskeyLine>  $passkeys
     * @param  string  $address where browsers make and show them, as scheme://host[:port]; '' where there is no such
     * @param  list<string>  $recovery codes that the first one has brought, shown this once
     */
    public function __construct(public array $passkeys, public string $address, public array $recovery) {}
}
