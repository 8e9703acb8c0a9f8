<?php

declare(strict_types=1);

namespace App\Accounts;

use Illuminate\Http\Request;
use Illuminate\Support\Facades\Cookie;

/**
 * Remembers on a device who has signed in there, so that wrong tries made elsewhere do not keep them out of it. The
 * cookie is encrypted with the application's key and holds no names.
 */
final class KnownDevice
{
    private const COOKIE = 'vantrel_device';

    private const DAYS = 365;

    /** A shared tablet sees more than a class. */
    private const MOST = 60;

    /** For whose tries this device has a count of its own; null where it has none. */
    public static function of(Request $request, string $userName): ?string
    {
        [$device, $names] = self::read($request);

        return $device !== '' && in_array(self::short($userName), $names, true)
            ? $device . '|' . self::short($userName)
            : null;
    }

    public static function remember(Request $request, string $userName): void
    {
        [$device, $names] = self::read($request);
        $names = array_slice(
            [self::short($userName), ...array_values(array_diff($names, [self::short($userName)]))],
            0,
            self::MOST,
        );
        Cookie::queue(
            Cookie::make(
                self::COOKIE,
                ($device ?: bin2hex(random_bytes(16))) . '.' . implode('', $names),
                self::DAYS * 24 * 60,
            ),
        );
    }

    /** @return array{string, list<string>} the device's own name, '' where it has none, and who has signed in there */
    private static function read(Request $request): array
    {
        $value = $request->cookie(self::COOKIE);
        if (!is_string($value) || preg_match('/^([0-9a-f]{32})\.((?:[0-9a-f]{12})*)$/', $value, $m) !== 1) {
            return ['', []];
        }

        return [$m[1], $m[2] === '' ? [] : str_split($m[2], 12)];
    }

    private static function short(string $userName): string
    {
        return substr(hash_hmac('sha256', $userName, 'device ' . config('app.key')), 0, 12);
    }
}
