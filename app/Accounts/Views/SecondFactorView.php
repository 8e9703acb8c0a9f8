<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/**
 * The second factor of whoever is signed in. Secret and recovery codes are there only in the answer that makes them.
 */
final readonly class SecondFactorView extends Resource
{
    /**
     * @param  bool  $on whether the password alone lets nobody in
     * @param  bool  $app whether an app shows codes
     * @param  bool  $passkeys whether there is one
     * @param  bool  $asked whether a school asks for a second factor
     * @param  string  $secret Base32, to be typed where a QR cannot be read
     * @param  string  $qr the QR of the key URI as one SVG path
     * @param  int  $qrSize modules to a side
     * @param  list<string>  $recovery codes for the day the phone is lost, each works once
     */
    public function __construct(
        public bool $on,
        public bool $app,
        public bool $passkeys,
        public bool $asked,
        public int $recoveryLeft,
        public string $secret,
        public string $qr,
        public int $qrSize,
        public array $recovery,
    ) {}
}
