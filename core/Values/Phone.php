<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use libphonenumber\NumberParseException;
use libphonenumber\PhoneNumberFormat;
use libphonenumber\PhoneNumberUtil;
use libphonenumber\ValidationResult;

/** A phone number in the international form of ITU-T E.164: "+12025550143". */
final class Phone
{
    /** @var array<string, string|null> */
    private static array $read = [];

    /**
     * Reads a cell; what is not part of the number ("cell:", "(mom)") is passed over, the first of several numbers is
     * taken.
     *
     * @param  string  $country ISO 3166-1 code of the school's country, for numbers without a country code
     * @return string|null null if it cannot be a number of that country
     */
    public static function read(string $cell, string $country): ?string
    {
        if (preg_match('/\+?[\d(][\d ().\-\/\x{00A0}]{5,}\d(?:\s*(?:x|ext\.?)\s*\d{1,5})?/u', $cell, $m) !== 1) {
            return null;
        }
        if (count(self::$read) > 50_000) {
            self::$read = [];
        }
        $key = "$country $m[0]";
        if (!array_key_exists($key, self::$read)) {
            $util = PhoneNumberUtil::getInstance();
            try {
                $number = $util->parse($m[0], $country);
                self::$read[$key] =
                    $util->isPossibleNumberWithReason($number) === ValidationResult::IS_POSSIBLE
                        ? $util->format($number, PhoneNumberFormat::E164)
                        : null;
            } catch (NumberParseException) {
                self::$read[$key] = null;
            }
        }

        return self::$read[$key];
    }
}
