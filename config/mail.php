<?php

declare(strict_types=1);

return [
    // Every mail goes into the Mailroom's outbox, and from there to the gateway that config/vantrel.php names.
    'default' => 'mailroom',
    'mailers' => ['mailroom' => ['transport' => 'mailroom']],
    'from' => [
        'address' => env('MAIL_FROM_ADDRESS', 'office@lanternfield.example'),
        'name' => env('MAIL_FROM_NAME', 'Lanternfield Area Schools'),
    ],
];
