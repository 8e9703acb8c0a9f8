<?php

declare(strict_types=1);

// The stand-in of a school's record, for PHP's own server: `php -S HOST:PORT records.php`, with the file of its data in
// VANTREL_RECORDS. Started and ended by bin/start and by tests.

use App\StandIns\RecordSystem;

require dirname(__DIR__, 2) . '/vendor/autoload.php';

[$status, $headers, $body] = RecordSystem::of((string) getenv('VANTREL_RECORDS'))->answer(
    $_SERVER['REQUEST_METHOD'] ?? 'GET',
    (string) parse_url($_SERVER['REQUEST_URI'] ?? '/', PHP_URL_PATH),
    $_GET,
    $_POST,
    (string) ($_SERVER['HTTP_AUTHORIZATION'] ??
        (isset($_SERVER['PHP_AUTH_USER'])
            ? 'Basic ' . base64_encode($_SERVER['PHP_AUTH_USER'] . ':' . ($_SERVER['PHP_AUTH_PW'] ?? ''))
            : '')),
    (string) ($_SERVER['HTTP_HOST'] ?? ''),
    time(),
);
http_response_code($status);
foreach (['Content-Type' => 'application/json', ...$headers] as $name => $value) {
    header("$name: $value");
}
echo json_encode($body, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
