<?php

declare(strict_types=1);

$mariadb = [
    'driver' => 'mariadb',
    'host' => env('DB_HOST', '127.0.0.1'),
    'port' => env('DB_PORT', '3306'),
    'database' => env('DB_DATABASE', 'vantrel'),
    'username' => env('DB_USERNAME', 'vantrel'),
    'password' => env('DB_PASSWORD', ''),
    'charset' => 'utf8mb4',
    'collation' => 'utf8mb4_uca1400_ai_ci',
    'prefix' => '',
    'strict' => true,
    'engine' => 'InnoDB',
    'timezone' => '+00:00',
];
// Values are quoted by PDO, not prepared by the server: a statement is one round trip and not two. Safe in utf8mb4,
// where no character has a quote or backslash as its second byte.
$quoted = [PDO::ATTR_EMULATE_PREPARES => true];
// A connection kept from request to request, under a name of its own: progress must never be written on the one that
// holds a transaction. PDO takes back what a request has left open.
$kept = env('DB_PERSISTENT', false) ? [PDO::ATTR_PERSISTENT => 'main'] : [];

return [
    'default' => 'mariadb',
    'connections' => [
        'mariadb' => [...$mariadb, 'options' => $quoted + $kept],
        'progress' => [...$mariadb, 'options' => $quoted],
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
