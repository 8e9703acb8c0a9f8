<?php

declare(strict_types=1);

// Stands in for a mail server, the mailbox of returned mail and a gateway for texts, on loopback, in one process:
// `php mail.php FOLDER SMTP_PORT POP3_PORT TEXTS_PORT`. Started and ended by bin/start and by tests.

use App\StandIns\Mail\Folder;
use App\StandIns\Mail\PopTalk;
use App\StandIns\Mail\SmtpTalk;
use App\StandIns\Mail\Talk;
use App\StandIns\Mail\TextTalk;

require dirname(__DIR__, 2) . '/vendor/autoload.php';

$folder = new Folder($argv[1]);
$servers = [];
foreach (array_slice($argv, 2, 3) as $i => $port) {
    $server = stream_socket_server(
        "tcp://127.0.0.1:$port",
        $code,
        $why,
        STREAM_SERVER_BIND | STREAM_SERVER_LISTEN,
        stream_context_create(['socket' => ['tcp_nodelay' => true]]),
    );
    if ($server === false) {
        fwrite(STDERR, "Port $port: $why\n");
        exit(1);
    }
    $servers[$i] = $server;
}
/** @var array<int, Talk> $talks by socket */
$talks = [];
/** @var array<int, resource> $sockets */
$sockets = [];
/** @var array<int, string> $came and is not taken yet */
$came = [];
for (;;) {
    $ready = [...$servers, ...$sockets];
    $none = null;
    if (@stream_select($ready, $none, $none, null) === false) {
        continue;
    }
    foreach ($ready as $socket) {
        $which = array_search($socket, $servers, true);
        if ($which !== false) {
            $new = @stream_socket_accept($socket, 0);
            if ($new !== false) {
                $talk = match ($which) {
                    0 => new SmtpTalk($folder),
                    1 => new PopTalk($folder),
                    default => new TextTalk($folder),
                };
                fwrite($new, $talk->greeting());
                [$sockets[(int) $new], $talks[(int) $new], $came[(int) $new]] = [$new, $talk, ''];
            }
            continue;
        }
        $id = (int) $socket;
        $bytes = fread($socket, 65536);
        $isOver = $bytes === false || $bytes === '';
        if (!$isOver) {
            $came[$id] .= $bytes;
            @fwrite($socket, $talks[$id]->take($came[$id]));
            $isOver = $talks[$id]->isOver();
        }
        if ($isOver) {
            unset($sockets[$id], $talks[$id], $came[$id]);
            fclose($socket);
        }
    }
}
