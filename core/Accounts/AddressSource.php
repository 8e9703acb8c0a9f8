<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Records\School;

/** Who gave an address, or what confirmed it. */
enum AddressSource: string
{
    /** A list brought in, which may hold a slip of the pen. */
    case Listed = 'list';
    /** Typed by a coordinator. */
    case Hand = 'hand';
    /** Typed at the door by the person who says it is theirs. */
    case Door = 'door';
    /** Given out by the school itself: it is under one of the school's own mail domains. */
    case School = 'school';
    /** A link sent there has been followed. */
    case Mail = 'mail';
    /** The school's single sign-on has verified it. */
    case SignOn = 'sign_on';

    public function label(): string
    {
        return match ($this) {
            self::Listed => 'from a list',
            self::Hand => 'typed here',
            self::Door => 'typed at the door',
            self::School => 'an address of the school',
            self::Mail => 'confirmed by a mail',
            self::SignOn => 'confirmed by the school’s sign-on',
        };
    }
}
