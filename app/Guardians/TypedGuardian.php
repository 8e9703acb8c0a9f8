<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Guardians\Http\Wishes\FamilyAskWish;
use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Phone;

/** Who somebody without an account says to be, as the door of guardians takes it. */
final class TypedGuardian
{
    /**
     * @param  string  $country of the school, for numbers without their own
     *
     * @throws Refusal naming what is wrong with it
     */
    public static function of(FamilyAskWish $wish, string $country): Claimant
    {
        $email =
            MailAddress::read($wish->email)->address ??
            throw new Refusal('That is not a complete mail address.', 'email');
        $phone = null;
        if ($wish->phone !== null && trim($wish->phone) !== '') {
            $phone =
                Phone::read($wish->phone, $country) ??
                throw new Refusal('That is not a phone number. Leave it empty, or type all of it.', 'phone');
        }
        $name = self::name($wish->givenName, $wish->familyName);
        if ($name->given === '' && $name->family === '') {
            throw new Refusal('Type your name.', 'given_name');
        }

        return new Claimant($name, $email, $phone);
    }

    public static function name(string $given, string $family): PersonName
    {
        return NameReader::mend(new PersonName(NameReader::tidy($given), NameReader::tidy($family)));
    }
}
