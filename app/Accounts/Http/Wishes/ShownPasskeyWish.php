<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;

/** What a browser answers when it shows a passkey; bytes as base64url. */
final readonly class ShownPasskeyWish
{
    /**
     * @param  string  $credential its id
     * @param  string  $client clientDataJSON
     * @param  string  $data authenticator data
     */
    public function __construct(
        #[Must('max:1400')] public string $credential,
        #[Must('max:2000')] public string $client,
        #[Must('max:4000')] public string $data,
        #[Must('max:2000')] public string $signature,
    ) {}
}
