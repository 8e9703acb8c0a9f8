<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** What the sign-in page offers. */
final readonly class Entrance extends Resource
{
    /**
     * @param  string  $singleSignOn what the button says, '' where there is none
     * @param  bool  $secondFactor whether somebody is back from the school's sign-on and a second factor is awaited
     * @param  bool  $passkey whether that can be a passkey
     * @param  string  $note why somebody was sent back here, once
     */
    public function __construct(
        public bool $stayOwn,
        public bool $stayShared,
        public string $singleSignOn,
        public string $note,
        public bool $secondFactor,
        public bool $passkey,
    ) {}
}
