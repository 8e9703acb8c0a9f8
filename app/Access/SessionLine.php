<?php

declare(strict_types=1);

namespace App\Access;

use App\Platform\Resource;

/** One open session. */
final readonly class SessionLine extends Resource
{
    public function __construct(public string $key, public string $device, public string $from, public string $seenAt, public bool $thisOne)
    {
    }

    /** What kind of device a browser says it runs on; no more is needed to recognise one's own. */
    public static function device(string $userAgent): string
    {
        return match (true) {
            str_contains($userAgent, 'iPad') => 'iPad',
            str_contains($userAgent, 'iPhone') => 'iPhone',
            str_contains($userAgent, 'Android') => str_contains($userAgent, 'Mobile') ? 'Android phone' : 'Android tablet',
            str_contains($userAgent, 'CrOS') => 'Chromebook',
            str_contains($userAgent, 'Windows') => 'Windows computer',
            str_contains($userAgent, 'Mac OS X') => 'Mac',
            str_contains($userAgent, 'Linux') => 'Linux computer',
            default => 'a device',
        };
    }
}
