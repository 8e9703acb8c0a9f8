<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

/** Whom a school asks for a second factor. Of several schools somebody works in, the strictest counts. */
enum SecondFactorRule: string
{
    case Optional = 'optional';
    case Coordinators = 'coordinators';
    case Staff = 'staff';

    /**
     * @param  bool  $works whether the school is the one they belong to
     * @param  bool  $coordinates whether they coordinate it
     */
    public function asks(bool $works, bool $coordinates): bool
    {
        return match ($this) {
            self::Optional => false,
            self::Coordinators => $coordinates,
            self::Staff => $works || $coordinates,
        };
    }
}
