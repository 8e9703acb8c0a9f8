<?php

declare(strict_types=1);

namespace App\Accounts\Http\Wishes;

use App\Platform\Must;
use Vantrel\Core\Accounts\CredentialKind;

/** Which way to sign in is to end; a second factor or a passkey takes the password of whoever ends it. */
final readonly class EndCredentialWish
{
    public function __construct(
        public CredentialKind $kind,
        #[Must('max:64|alpha_num:ascii')] public string $id,
        #[Must('max:256')] public ?string $password = null,
    ) {}
}
