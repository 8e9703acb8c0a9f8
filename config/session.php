<?php

declare(strict_types=1);

use Vantrel\Core\Settings\SchoolSettings;

$https = str_starts_with((string) env('APP_URL', ''), 'https://');

return [
    // The longest that a school may let people stay signed in. All other sessions end with the browser and after two
    // idle hours: App\Accounts\KeepSession.
    'lifetime' => SchoolSettings::MOST_STAY_DAYS * 24 * 60,
    'expire_on_close' => true,
    // Over https the cookie never travels without it, and no other host can set it.
    'secure' => (bool) env('SESSION_SECURE_COOKIE', $https),
    'cookie' => $https ? '__Host-vantrel' : 'vantrel_session',
    'same_site' => 'lax',
    'http_only' => true,
];
