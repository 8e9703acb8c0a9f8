<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

/**
 * How a parent agreed that a child under 13 has an account. 16 CFR 312.5(b) (USA) names ways that are held to be
 * reliable; a form that is signed and returned is the first of them.
 */
enum ConsentWay: string
{
    case Form = 'form';
    case InPerson = 'in_person';
    case Telephone = 'telephone';
    case Account = 'account';
    /** The school agrees in the parents' place, for use in class alone. */
    case School = 'school';

    public function label(): string
    {
        return match ($this) {
            self::Form => 'signed form',
            self::InPerson => 'in person',
            self::Telephone => 'by telephone',
            self::Account => 'from their account',
            self::School => 'by the school, for class',
        };
    }
}
