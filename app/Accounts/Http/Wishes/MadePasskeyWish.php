<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** What a browser has made, as its answer names the parts; bytes as base64url. */
final readonly class MadePasskeyWish
{
    /**
     * @param  string  $client clientDataJSON
     * @param  string  $data authenticator data
     * @param  string  $key public key, SubjectPublicKeyInfo
     * @param  string  $name what its owner calls it; by default the kind of device
     */
    public function __construct(
        #[Must('max:2000')] public string $client,
        #[Must('max:4000')] public string $data,
        #[Must('max:2000')] public string $key,
        #[Must('max:60')] public string $name = '',
    ) {}
}
