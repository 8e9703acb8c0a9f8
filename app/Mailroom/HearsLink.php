<?php

declare(strict_types=1);

namespace App\Mailroom;

/**
 * The link of a digest by which its receiver, and whoever they hand it on to, chooses how often it comes: a keyed sum
 * of whom it is for, so that nothing has to be kept and nobody guesses another's. It opens nothing else.
 */
final class HearsLink
{
    public static function token(string $personId): string
    {
        return strtolower($personId) . self::sum($personId);
    }

    /** @return string|null id of the person, where the token is one of ours */
    public static function person(string $token): ?string
    {
        $id = strtoupper(substr($token, 0, 26));

        return hash_equals(self::sum($id), substr($token, 26)) ? $id : null;
    }

    /** Where a mail program ends it with one touch (RFC 8058), and a person is led to a page. */
    public static function of(string $personId): string
    {
        return rtrim((string) config('app.url'), '/') . '/u/' . self::token($personId);
    }

    private static function sum(string $personId): string
    {
        return substr(hash_hmac('sha256', "hears $personId", (string) config('app.key')), 0, 32);
    }
}
