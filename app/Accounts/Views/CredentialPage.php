<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** Every way to sign in of a person, with the address that may lead to another. */
final readonly class CredentialPage extends Resource
{
    /**
     * @param  list<CredentialLine>  $credentials
     * @param  string  $address '' where there is none
     * @param  bool  $confirmed whether it is: only then it signs in, resets or receives anything personal
     * @param  string  $addressSays how the address came or was confirmed, in words
     * @param  string|null  $addressAt when
     * @param  bool  $canSendLink whether a link for a first sign-in can be sent there
     * @param  bool  $canLeave whether this is somebody on the staff who can be seen off
     * @param  string  $said what has just been done, '' for nothing
     */
    public function __construct(
        public array $credentials,
        public string $address,
        public bool $confirmed,
        public string $addressSays,
        public ?string $addressAt,
        public bool $canSendLink,
        public bool $canLeave,
        public string $said,
    ) {}
}
