<?php

declare(strict_types=1);

namespace App\Accounts;

/** What opens a session. */
enum CredentialWay: string
{
    case Password = 'password';
    case Passphrase = 'passphrase';
    case Badge = 'badge';
    case SignOn = 'sign_on';
    case RoomPass = 'room_pass';
    case Passkey = 'passkey';
}
