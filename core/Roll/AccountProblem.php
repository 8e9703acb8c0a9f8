<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

/** What may be amiss with the account of an active student. */
enum AccountProblem: string
{
    case Unplaced = 'unplaced';
    case NeverSignedIn = 'never_signed_in';
    case NoGuardian = 'no_guardian';
    case NoCard = 'no_card';

    public function isOf(AccountFacts $account): bool
    {
        return match ($this) {
            self::Unplaced => !$account->placed,
            self::NeverSignedIn => !$account->signedIn,
            self::NoGuardian => !$account->guarded,
            self::NoCard => !$account->carded,
        };
    }
}
