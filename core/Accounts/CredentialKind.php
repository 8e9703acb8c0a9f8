<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

/** What somebody can sign in with, or has signed in by, and what can be ended. */
enum CredentialKind: string
{
    case Password = 'password';
    case Passphrase = 'passphrase';
    case Card = 'card';
    case SignOn = 'sign_on';
    case Passkey = 'passkey';
    case SecondFactor = 'second_factor';
    case Link = 'link';
    case Session = 'session';

    /** Whether without it a password alone may let somebody in: who ends one of another person shows who they are. */
    public function isFactor(): bool
    {
        return $this === self::Passkey || $this === self::SecondFactor;
    }
}
