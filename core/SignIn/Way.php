<?php

declare(strict_types=1);

namespace Vantrel\Core\SignIn;

/** How the students of a grade sign in. */
enum Way: string
{
    case Card = 'card';
    case Passphrase = 'passphrase';
    case Own = 'own';
    case School = 'school';

    public function sentence(): string
    {
        return match ($this) {
            self::Card => 'Card only: the camera reads the square; nothing is typed.',
            self::Passphrase => 'Card, or the user name and passphrase printed on it.',
            self::Own => 'As on the card the first time; then a password of their own.',
            self::School => 'The school’s single sign-on.',
        };
    }
}
