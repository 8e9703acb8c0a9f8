<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** One open session. */
final readonly class SessionLine extends Resource
{
    /** @param  string  $way by what it was opened: password, passphrase, badge, sign_on or room_pass */
    public function __construct(
        public string $key,
        public string $way,
        public string $device,
        public string $from,
        public string $seenAt,
        public bool $thisOne,
    ) {}

    /** Names a session without giving its id away: the id is what the cookie holds. */
    public static function keyOf(string $sessionId): string
    {
        return substr(hash_hmac('sha256', $sessionId, (string) config('app.key')), 0, 32);
    }

    /** What kind of device a browser says it runs on; no more is needed to recognise one's own. */
    public static function device(string $userAgent): string
    {
        return match (true) {
            str_contains($userAgent, 'iPad') => 'iPad',
            str_contains($userAgent, 'iPhone') => 'iPhone',
            str_contains($userAgent, 'Android') => str_contains($userAgent, 'Mobile')
                ? 'Android phone'
                : 'Android tablet',
            str_contains($userAgent, 'CrOS') => 'Chromebook',
            str_contains($userAgent, 'Windows') => 'Windows computer',
            str_contains($userAgent, 'Mac OS X') => 'Mac',
            str_contains($userAgent, 'Linux') => 'Linux computer',
            default => 'a device',
        };
    }
}
