<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** What a browser is asked so that it makes or shows a passkey; bytes as base64url. */
final readonly class PasskeyQuestion extends Resource
{
    /**
     * @param  string  $question to be signed
     * @param  string  $party the host passkeys are made for: they can be used at this address only
     * @param  list<string>  $credentials ids: of those that are there already, or that can be shown; none for any
     * @param  list<int>  $algorithms COSE numbers, the best first; to make one
     * @param  string  $owner opaque name of the account; to make one
     * @param  string  $userName to make one
     * @param  string  $name of the person; to make one
     */
    public function __construct(
        public string $question,
        public string $party,
        public array $credentials,
        public array $algorithms,
        public string $owner,
        public string $userName,
        public string $name,
    ) {}
}
