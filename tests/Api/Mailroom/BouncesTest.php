<?php

declare(strict_types=1);

use App\Mailroom\Bounces;
use App\Mailroom\Compose;
use App\Mailroom\Headers;
use App\Mailroom\Jobs\HandOver;
use App\Mailroom\Mailbox;
use App\Mailroom\Outbox;
use App\Models\OutgoingMessage;
use App\StandIns\Mail\Report;
use Illuminate\Support\Facades\DB;
use Tests\Support\MailStandIn;
use Tests\Support\World;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\MessageState;

/** Mail that comes back, and the mailbox it comes to. */
beforeEach(function (): void {
    $this->world = World::make();
    $this->gateway = MailStandIn::start();
    config(['queue.default' => 'null']);
    $about = new Headers($this->world->school, MessageKind::Account, 'Lanternfield Primary');
    $this->put = fn(string $to): OutgoingMessage => app(Outbox::class)->put($about, 'mail', $to, 'Room 4', 'x', null);
});
afterEach(fn() => $this->gateway->end());

it('knows mail that comes back, and asks about its address; a report of a stranger changes nothing', function (): void {
    $gone = ($this->put)('bounce.ada@shoremail.example');
    $other = ($this->put)('petra@lanternfield.example');
    HandOver::dispatchSync();
    expect(app(Bounces::class)->read())
        ->toBe(1)
        ->and($gone->refresh()->state)
        ->toBe(MessageState::Bounced)
        ->and($gone->problem)
        ->toBe('There is no such address. Their server says: 550 5.1.1 The mailbox is gone')
        ->and(DB::table('bounced_addresses')->pluck('address')->all())
        ->toBe(['bounce.ada@shoremail.example'])
        ->and(app(Bounces::class)->read())
        ->toBe(0);
    $forged = Report::of(
        'Message-ID: <' . Compose::id($other) . ">\r\n\r\n",
        'somebody.else@shoremail.example',
        'returned@lanternfield.example',
    );
    expect(app(Bounces::class)->take($forged))->toBeFalse()->and($other->refresh()->state)->toBe(MessageState::Sent);
});

it('takes out of a mailbox only reports of our own messages, and looks at the rest once', function (): void {
    $gone = ($this->put)('bounce.ada@shoremail.example');
    HandOver::dispatchSync();
    $letters = [
        "Subject: Re: Trip\r\n\r\nWe come.\r\n",
        "Subject: Long\r\n\r\n" . str_repeat('x', 8190) . "..\r\n.a\r\n",
        Report::of("Message-ID: <1@elsewhere.example>\r\n\r\n", 'b@c.example', 'd@e.example'),
    ];
    foreach ($letters as $i => $letter) {
        file_put_contents("{$this->gateway->folder}/returned/0$i.eml", $letter);
    }
    expect(app(Bounces::class)->read())->toBe(1)->and($gone->refresh()->state)->toBe(MessageState::Bounced);
    $left = array_map(file_get_contents(...), glob("{$this->gateway->folder}/returned/*.eml"));
    expect($left)->toBe($letters);
    // A second report of the same message goes too, and the others have been looked at.
    $again = Report::of('Message-ID: <' . Compose::id($gone) . ">\r\n\r\n", $gone->to_address, 'r@l.example');
    file_put_contents("{$this->gateway->folder}/returned/1.eml", $again);
    expect(app(Bounces::class)->read())->toBe(1);
    expect(glob("{$this->gateway->folder}/returned/*.eml"))->toHaveCount(3);
    $looked = 0;
    $look = function () use (&$looked): bool {
        $looked++;

        return false;
    };
    $address = (string) config('vantrel.mail.mailbox');
    $stay = Mailbox::read($address, $look, [], 2);
    expect([$looked, count($stay)])->toBe([2, 2]);
    $stay = Mailbox::read($address, $look, $stay, 2);
    Mailbox::read($address, $look, $stay, 2);
    expect([$looked, count($stay)])->toBe([3, 3]);
});

it('sets aside a report that cannot be read, and reads those behind it', function (): void {
    $gone = ($this->put)('bounce.ada@shoremail.example');
    HandOver::dispatchSync();
    $long = str_repeat('b', 90_000);
    foreach (["\"$long\"", $long, '"' . str_repeat('(', 70) . '"'] as $i => $boundary) {
        file_put_contents(
            "{$this->gateway->folder}/returned/00$i.eml",
            "Content-Type: multipart/report; boundary=$boundary\r\n\r\n" .
                str_repeat("--$boundary\r\nContent-Type: message/delivery-status\r\n\r\n\r\n", 3),
        );
    }
    expect(app(Bounces::class)->read())->toBe(1)->and($gone->refresh()->state)->toBe(MessageState::Bounced);
});
