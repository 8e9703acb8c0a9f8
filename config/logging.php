<?php

declare(strict_types=1);

return [
    // A file a day; older ones are deleted. What goes wrong is noted with its place, never with what people have typed.
    'default' => env('LOG_CHANNEL', 'daily'),
    'channels' => [
        'daily' => [
            'driver' => 'daily',
            'path' => storage_path('logs/laravel.log'),
            'level' => env('LOG_LEVEL', 'info'),
            'days' => (int) env('LOG_DAILY_DAYS', 30),
        ],
    ],
];
