<?php

declare(strict_types=1);

use App\Mailroom\Compose;
use App\Mailroom\Headers;
use App\Mailroom\Jobs\HandOver;
use App\Mailroom\Outbox;
use App\Models\OutgoingMessage;
use Tests\Support\RealServer;
use Tests\Support\World;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\MessageState;

// Mail as another SMTP server takes it and another parser reads it: aiosmtpd (Debian's python3-aiosmtpd; RFC 5321, RFC
// 4954, lines of at most 1,000 bytes) and Python's email package. Neither shares a line with ours or with the stand-in.

const SECRET = 'lantern & harbor “morning”';

beforeEach(function (): void {
    $this->world = World::make();
    config(['queue.default' => 'null']);
    $this->servers = [];
    $this->server = function (string ...$tls): string {
        $kept = scratch() . '/kept';
        [$this->servers[], $port] = RealServer::answering(function () use ($kept, $tls): array {
            $port = RealServer::freePort();
            $process = proc_open(
                [
                    '/usr/bin/python3',
                    base_path('tests/Support/mail_server.py'),
                    "$port",
                    $kept,
                    'school',
                    SECRET,
                    ...$tls,
                ],
                [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', "$kept.said", 'w']],
                $pipes,
            );

            return [$process, [$port], [$process, $port]];
        }, "$kept.said");
        config([
            'vantrel.mail.host' => '127.0.0.1',
            'vantrel.mail.port' => $port,
            'vantrel.mail.username' => 'school',
            'vantrel.mail.password' => SECRET,
            'vantrel.mail.bounces' => 'returned@lanternfield.example',
        ]);

        return $kept;
    };
    $this->put = fn(
        string $text,
        string $to = 'ada@shoremail.example',
        MessageKind $kind = MessageKind::Account,
    ): OutgoingMessage => app(Outbox::class)->put(
        new Headers($this->world->school, $kind, 'Escuela “Faro”, 学校', $this->world->people['guardian']),
        'mail',
        $to,
        'Room 4',
        $text,
        null,
    );
    /** @return list<array{from: string, to: list<string>, as: string, raw: string}> */
    $this->kept = fn(string $file): array => array_map(
        fn(string $line): array => [...($one = json_decode($line, true)), 'raw' => base64_decode($one['raw'])],
        is_file($file) ? file($file, FILE_IGNORE_NEW_LINES) : [],
    );
});
afterEach(function (): void {
    foreach ($this->servers as $server) {
        proc_terminate($server, SIGKILL);
        proc_close($server);
    }
});

it(
    'gives every kind of mail to a server that asks who we are, and it is read there as it was meant',
    function (): void {
        $kept = ($this->server)();
        $meant = [];
        // One to a student goes only with an invitation that waits: tests/Api/Door.
        foreach (array_filter(MessageKind::cases(), fn(MessageKind $k) => $k !== MessageKind::Student) as $i => $kind) {
            $message = ($this->put)("Número $i\n\nhttps://a.example/x#y", "family$i@shoremail.example", $kind);
            $meant[Compose::id($message)] = [["family$i@shoremail.example"], "Número $i\n\nhttps://a.example/x#y"];
        }
        HandOver::dispatchSync();
        $read = [];
        foreach (($this->kept)($kept) as $one) {
            $mail = asPythonReads($one['raw']);
            expect($mail['defects'])
                ->toBe([])
                ->and($mail['from_name'])
                ->toBe('Escuela “Faro”, 学校')
                ->and([$one['from'], $one['as'], $one['to']])
                ->toBe(['returned@lanternfield.example', 'school', $mail['to']]);
            $read[trim($mail['id'], '<>')] = [$one['to'], trim(str_replace("\r\n", "\n", $mail['plain']))];
        }
        expect($read)->toEqual($meant);
    },
);

it('loses no character of a text on the way', function (): void {
    $texts = [
        'lines of dots, which end a message' => "a\n.\n..\n.a\n.\nQUIT\nb",
        'a line longer than mail may have' => str_repeat('word and ', 300) . 'end',
        'one without a gap' => 'https://a.example/' . str_repeat('x', 3000),
        'what mailboxes are parted by' => "a\nFrom ada Mon Jan  1\n>From b\n-- \nc",
        'spaces that end a line, and tabs' => "a  \n\tb\t\n  c = d =3D =\ne",
        'scripts of all directions' => "Приві́т 학교 مدرسة \u{2068}3 Heron\u{2069} 👩‍👩‍👧 e\u{301}",
        'much' => str_repeat("Ünï 漢字 line\n", 4000) . 'end',
    ];
    $kept = ($this->server)();
    $sent = array_map(fn(string $text): OutgoingMessage => ($this->put)($text), $texts);
    HandOver::dispatchSync();
    $mails = ($this->kept)($kept);
    expect($mails)->toHaveCount(count($texts));
    $read = [];
    foreach ($mails as $mail) {
        $lines = array_map(strlen(...), explode("\n", str_replace("\r\n", "\n", $mail['raw'])));
        expect(max($lines))->toBeLessThanOrEqual(998);
        $as = asPythonReads($mail['raw']);
        $read[trim($as['id'], '<>')] = str_replace("\r\n", "\n", $as['plain']);
    }
    foreach ($texts as $what => $text) {
        expect($sent[$what]->refresh()->state)
            ->toBe(MessageState::Sent, $what)
            ->and($read[Compose::id($sent[$what])])
            ->toStartWith($text);
    }
});

it('waits where the server does not know us, and gives no message up', function (): void {
    $kept = ($this->server)();
    config(['vantrel.mail.password' => 'lantern']);
    $message = ($this->put)('Hello');
    HandOver::dispatchSync();
    expect($message->refresh()->state)
        ->toBe(MessageState::Waiting)
        ->and($message->problem)
        ->toContain('does not let us sign in')
        ->and(($this->kept)($kept))
        ->toBe([]);
    config(['vantrel.mail.password' => SECRET]);
    $this->travel(1)->hours();
    HandOver::dispatchSync();
    expect($message->refresh()->state)->toBe(MessageState::Sent)->and(($this->kept)($kept))->toHaveCount(1);
});

it('tells its password to no server whose certificate nobody vouches for', function (): void {
    $folder = scratch();
    outside([
        'openssl',
        'req',
        '-x509',
        '-newkey',
        'rsa:2048',
        '-nodes',
        '-days',
        '2',
        '-subj',
        '/CN=127.0.0.1',
        '-addext',
        'subjectAltName=IP:127.0.0.1',
        '-keyout',
        "$folder/key.pem",
        '-out',
        "$folder/cert.pem",
    ]);
    $kept = ($this->server)("$folder/cert.pem", "$folder/key.pem");
    config(['vantrel.mail.scheme' => 'smtps']);
    $message = ($this->put)('Hello');
    HandOver::dispatchSync();
    expect($message->refresh()->state)->toBe(MessageState::Waiting)->and(($this->kept)($kept))->toBe([]);
});

it('says at the message what a server refuses', function (string $to, MessageState $state): void {
    $kept = ($this->server)();
    $message = ($this->put)('Hello', $to);
    HandOver::dispatchSync();
    expect([$message->refresh()->state, count(($this->kept)($kept))])->toBe([
        $state,
        $state === MessageState::Sent ? 1 : 0,
    ]);
    if ($state !== MessageState::Sent) {
        expect($message->problem)->not->toBe('');
    }
})->with([
    'a domain in other letters' => ['ada@küste.example', MessageState::Sent],
    'a name in other letters, which this server does not know' => ['añil@shoremail.example', MessageState::Refused],
]);
