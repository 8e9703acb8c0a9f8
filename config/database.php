<?php

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

return [
    'default' => 'mariadb',
    'connections' => ['mariadb' => $mariadb, 'progress' => $mariadb],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => false],
];
