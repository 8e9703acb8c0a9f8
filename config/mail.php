<?php

declare(strict_types=1);

return [
    // The Mailroom keeps every message in the database. Set MAIL_MAILER=smtp and MAIL_HOST etc. to send for real.
    'default' => env('MAIL_MAILER', 'mailroom'),
    'mailers' => [
        'mailroom' => ['transport' => 'mailroom'],
        'smtp' => [
            'transport' => 'smtp',
            'scheme' => env('MAIL_SCHEME'),
            'host' => env('MAIL_HOST', '127.0.0.1'),
            'port' => env('MAIL_PORT', 587),
            'username' => env('MAIL_USERNAME'),
            'password' => env('MAIL_PASSWORD'),
            'timeout' => 20,
        ],
    ],
    'from' => [
        'address' => env('MAIL_FROM_ADDRESS', 'office@lanternfield.example'),
        'name' => env('MAIL_FROM_NAME', 'Lanternfield Area Schools'),
    ],
];
