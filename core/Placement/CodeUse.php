<?php

declare(strict_types=1);

namespace Vantrel\Core\Placement;

/** Whom a join code lets in. Students with an account always are; the cases say what becomes of those without one. */
enum CodeUse: string
{
    case Accounts = 'accounts';
    case Domain = 'domain';
    case Approval = 'approval';

    public function sentence(): string
    {
        return match ($this) {
            self::Accounts => 'Students with an account here. Nobody can make a new one with it.',
            self::Domain => 'Students with an account here. A new one needs an address of the school, confirmed by mail.',
            self::Approval => 'Students with an account here come straight in. Newcomers wait for your approval.',
        };
    }
}
