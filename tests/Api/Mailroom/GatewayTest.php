<?php

declare(strict_types=1);

use App\Mailroom\Bounces;
use App\Mailroom\Compose;
use App\Mailroom\Headers;
use App\Mailroom\Jobs\HandOver;
use App\Mailroom\Outbox;
use App\Models\OutgoingMessage;
use Illuminate\Http\Client\ConnectionException;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Tests\Support\MailStandIn;
use Tests\Support\World;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\MessageState;

beforeEach(function (): void {
    $this->world = World::make();
    $this->gateway = MailStandIn::start();
    // Handed over when a test says so, as a worker would.
    config(['queue.default' => 'null']);
    $this->put = fn(
        string $to,
        string $subject = 'Room 4',
        string $text = "Hello\n\nhttps://a.example/x#y",
        ?Headers $about = null,
        string $via = 'mail',
    ) => app(Outbox::class)->put(
        $about ?? new Headers($this->world->school, MessageKind::Account, 'Lanternfield Primary'),
        $via,
        $to,
        $subject,
        $text,
        null,
    );
    $this->hand = fn() => HandOver::dispatchSync();
    $this->state = fn(OutgoingMessage $m): MessageState => $m->refresh()->state;
});
afterEach(fn() => $this->gateway->end());

it('hands a mail over as text and HTML, once, and says that it has gone', function (): void {
    $message = ($this->put)(
        'petra@lanternfield.example',
        'Приві́т, José — 3 Heron',
        "Hello José\n\nhttps://a.example/x#y.",
    );
    expect(($this->state)($message))->toBe(MessageState::Waiting);
    ($this->hand)();
    ($this->hand)();
    expect(($this->state)($message))
        ->toBe(MessageState::Sent)
        ->and($message->sent_at)
        ->not->toBeNull()
        ->and($this->gateway->deliveries())
        ->toBe(['mail ' . Compose::id($message) . ' petra@lanternfield.example']);
    $read = asPythonReads(array_values($this->gateway->mail())[0]);
    expect($read)
        ->toMatchArray([
            'defects' => [],
            'type' => 'multipart/alternative',
            'subject' => 'Приві́т, José — 3 Heron',
            'to' => ['petra@lanternfield.example'],
            'from' => ['office@lanternfield.example'],
            'from_name' => 'Lanternfield Primary',
            'id' => '<' . Compose::id($message) . '>',
            'auto' => 'auto-generated',
        ])
        ->and(str_replace("\r\n", "\n", trim($read['plain'])))
        ->toBe("Hello José\n\nhttps://a.example/x#y.")
        ->and($read['html'])
        ->toContain('<a href="https://a.example/x#y"', 'lang="en"')
        // What the Mailroom tells itself stays in it.
        ->and(implode(' ', $read['headers']))
        ->not->toContain('vantrel');
});

it('lets nothing that somebody has typed become a header or turn the reading round', function (): void {
    $evil = "Trip\r\nBcc: everyone@shoremail.example\r\n\r\nHi \u{202E}gnp.exe\u{2066}";
    $about = new Headers($this->world->school, MessageKind::Account, "School\r\nX-Evil: yes\u{202E}");
    ($this->put)('petra@lanternfield.example', $evil, "Line\r\n.\r\nMAIL FROM:<a@b.example>\r\n..dots", $about);
    ($this->hand)();
    $mail = $this->gateway->mail();
    $read = asPythonReads(array_values($mail)[0]);
    expect($mail)
        ->toHaveCount(1)
        ->and($read['headers'])
        ->not->toContain('bcc')
        ->not->toContain('x-evil')
        ->and($read['subject'])
        ->toBe('Trip Bcc: everyone@shoremail.example Hi gnp.exe')
        ->and($read['from_name'])
        ->toBe('School X-Evil: yes')
        ->and(str_replace("\r\n", "\n", trim($read['plain'])))
        ->toBe("Line\n.\nMAIL FROM:<a@b.example>\n..dots");
});

it('says why a gateway would not take a mail, and tries again what is only for later', function (): void {
    $refused = ($this->put)('refused@shoremail.example');
    $busy = ($this->put)('busy@shoremail.example');
    ($this->hand)();
    expect(($this->state)($refused))
        ->toBe(MessageState::Refused)
        ->and($refused->problem)
        ->toContain('No such mailbox here')
        ->and(($this->state)($busy))
        ->toBe(MessageState::Waiting)
        ->and($busy->problem)
        ->toContain('Busy')
        ->and($busy->next_at > now()->toDateTimeString())
        ->toBeTrue();
    for ($n = 0; $n < 9 && ($this->state)($busy) === MessageState::Waiting; $n++) {
        $this->travelTo(now()->addDay());
        ($this->hand)();
    }
    expect(($this->state)($busy))
        ->toBe(MessageState::Refused)
        ->and($busy->problem)
        ->toStartWith('Given up after 9 tries.');
});

it('waits for a gateway that does not answer, and loses nothing', function (): void {
    $this->gateway->end();
    $messages = [($this->put)('a@shoremail.example'), ($this->put)('b@shoremail.example')];
    ($this->hand)();
    foreach ($messages as $message) {
        expect(($this->state)($message))->toBe(MessageState::Waiting)->and($message->tries)->toBe(0);
    }
    $this->gateway = MailStandIn::start();
    $this->travelTo(now()->addMinutes(2));
    ($this->hand)();
    foreach ($messages as $message) {
        expect(($this->state)($message))->toBe(MessageState::Sent);
    }
});

it('waits for a gateway that does not let us in, says so, and goes out once it does', function (
    array $wrong,
    array $right,
    string $said,
): void {
    config($wrong);
    $via = isset($wrong['vantrel.texts.key']) ? 'text' : 'mail';
    $messages = array_map(
        fn(int $n) => ($this->put)($via === 'text' ? "+1202555010$n" : "a$n@shoremail.example", via: $via),
        [1, 2, 3],
    );
    ($this->hand)();
    expect(($this->state)($messages[0]))
        ->toBe(MessageState::Waiting)
        ->and($messages[0]->problem)
        ->toContain($said)
        // No name, password or key of ours is anybody's business at a school.
        ->not->toContain('refused');
    config($right);
    $this->travelTo(now()->addMinutes(2));
    ($this->hand)();
    foreach ($messages as $message) {
        expect(($this->state)($message))->toBe(MessageState::Sent)->and($message->tries)->toBe(0);
    }
})->with([
    'no name is given where one is asked for' => [
        ['vantrel.mail.bounces' => 'locked@lanternfield.example'],
        ['vantrel.mail.username' => 'vantrel', 'vantrel.mail.password' => 'x'],
        'does not let us sign in',
    ],
    'a password that is wrong' => [
        ['vantrel.mail.username' => 'refused-name', 'vantrel.mail.password' => 'x'],
        ['vantrel.mail.username' => 'vantrel'],
        'does not let us sign in',
    ],
    'a key for texts that is wrong' => [
        ['vantrel.texts.key' => 'refused-key'],
        ['vantrel.texts.key' => 'fine'],
        'that key is not known. Until it takes texts again, this waits.',
    ],
]);

it('takes a text that a gateway will not have for now, and one that it never will, for what they are', function (
    int $status,
    MessageState $state,
    int $tries,
): void {
    Http::fake([
        '*' => Http::response(['error' => 'no'], $status, $status === 302 ? ['Location' => 'http://a.example'] : []),
    ]);
    $text = ($this->put)('+12025550111', via: 'text');
    ($this->hand)();
    expect([($this->state)($text), $text->tries])->toBe([$state, $tries]);
})->with([
    // It is ours, not the text's: RFC 9110, 15.5.2, 15.5.3 and 15.6.4; RFC 6585, 4.
    [401, MessageState::Waiting, 0],
    [402, MessageState::Waiting, 0],
    [429, MessageState::Waiting, 0],
    [503, MessageState::Waiting, 0],
    // It may be either: tried again, and given up in the end.
    [302, MessageState::Waiting, 1],
    [403, MessageState::Waiting, 1],
    [404, MessageState::Waiting, 1],
    [500, MessageState::Waiting, 1],
    [400, MessageState::Refused, 1],
    [422, MessageState::Refused, 1],
]);

it('asks a gateway that is not there once, however many wait for it, and holds up nothing else', function (): void {
    $asked = 0;
    Http::fake(function () use (&$asked): never {
        $asked++;
        throw new ConnectionException('gone');
    });
    foreach (range(1, 120) as $n) {
        ($this->put)("+120255501$n", via: 'text');
    }
    $mail = ($this->put)('petra@lanternfield.example');
    ($this->hand)();
    expect([$asked, ($this->state)($mail)])
        ->toBe([1, MessageState::Sent])
        ->and(OutgoingMessage::query()->where('via', 'text')->where('state', MessageState::Waiting)->count())
        ->toBe(120)
        ->and(OutgoingMessage::query()->whereNotNull('claimed_until')->count())
        ->toBe(0);
});

it('leaves what a slow gateway keeps it from to the next worker', function (): void {
    $messages = array_map(fn(int $n) => ($this->put)("slow$n@shoremail.example"), range(1, 5));
    HandOver::dispatchSync(1);
    $left = OutgoingMessage::query()->where('state', MessageState::Waiting)->get();
    expect($left->count())
        ->toBeGreaterThan(0)
        ->toBeLessThan(5)
        ->and($left->whereNotNull('claim')->count())
        ->toBe(0);
    ($this->hand)();
    expect(array_map($this->state, $messages))->toBe(array_fill(0, 5, MessageState::Sent));
});

it('asks again where a plan that is applied to the same people holds it up', function (): void {
    $message = ($this->put)('petra@lanternfield.example');
    $held = 0;
    DB::connection()->beforeExecuting(function (string $sql) use (&$held): void {
        if ($held < 2 && str_starts_with($sql, 'update `outgoing_messages`') && str_contains($sql, 'not exists')) {
            $held++;
            throw new PDOException('Deadlock found when trying to get lock; try restarting transaction');
        }
    });
    ($this->hand)();
    expect([$held, ($this->state)($message)])->toBe([2, MessageState::Sent]);
});

it('hands over what somebody waits for before what is for many', function (): void {
    $letter = new Headers($this->world->school, MessageKind::Letter, personId: $this->world->people['lead']);
    foreach (range(1, 60) as $n) {
        ($this->put)("many$n@shoremail.example", about: $letter);
    }
    $this->travelTo(now()->addMinute());
    ($this->put)('waits@shoremail.example', 'A new password');
    ($this->hand)();
    $to = array_map(fn(string $line): string => explode(' ', $line)[2], $this->gateway->deliveries());
    expect($to)->toHaveCount(61)->and($to[0])->toBe('waits@shoremail.example');
});

it('hands nothing to a guardian who has been ended, kept away or withdrawn a moment ago', function (string $how): void {
    $tie = DB::table('guardianships')->first();
    DB::table('guardianships')->update(['state' => 'invited']);
    $about = new Headers(
        $this->world->school,
        MessageKind::Guardian,
        personId: $tie->guardian_id,
        children: [$tie->student_id],
    );
    $messages = array_map(fn(int $n) => ($this->put)("g$n@shoremail.example", about: $about), range(1, 120));
    DB::table('guardianships')->update(
        match ($how) {
            'restricted' => ['restriction' => 'By court order'],
            'withdrawn' => ['state' => 'listed'],
            default => ['state' => 'ended'],
        },
    );
    ($this->hand)();
    expect($this->gateway->deliveries())
        ->toBe([])
        ->and(OutgoingMessage::query()->where('state', 'stopped')->count())
        ->toBe(count($messages));
})->with(['ended', 'restricted', 'withdrawn']);

it('keeps a secret no longer than until it has gone', function (): void {
    config(['vantrel.stand_ins' => false]);
    $text = "Hello\n\nhttps://a.example/in#abcdefghijklmnop1234 or 123-456";
    $gone = ($this->put)('bounce@shoremail.example', text: $text);
    $refused = ($this->put)('refused@shoremail.example', text: $text);
    ($this->hand)();
    app(Bounces::class)->read();
    expect(asPythonReads(array_values($this->gateway->mail())[0])['plain'])
        ->toContain('abcdefghijklmnop1234')
        ->and($gone->refresh()->text)
        ->toBe("Hello\n\nhttps://a.example/in#… or …")
        ->and($refused->refresh()->text)
        ->toBe($text);
    $this->actingAs($this->world->as('coordinator'));
    $this->postJson("/api/messages/$gone->id/again")
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_contains($said, 'not kept'));
    // What was never taken still has what it was to bring.
    $this->postJson("/api/messages/$refused->id/again")->assertOk();
});

it('does not send again by itself what may have gone', function (): void {
    ($this->put)('petra@lanternfield.example');
    $outbox = app(Outbox::class);
    [$message] = $outbox->claim('01K0000000000000000000000A', 10);
    expect($outbox->begin($message))->toBeTrue()->and($outbox->findLost())->toBe(0);
    // No other worker takes it, nor the same one twice.
    expect($outbox->claim('01K0000000000000000000000B', 10))->toBe([])->and($outbox->begin($message))->toBeFalse();
    $this->travelTo(now()->addMinutes(6));
    expect($outbox->findLost())
        ->toBe(1)
        ->and(($this->state)($message))
        ->toBe(MessageState::Doubtful)
        ->and($message->problem)
        ->toContain('may have arrived');
    ($this->hand)();
    expect($this->gateway->deliveries())->toBe([]);
});

it('sends texts by the gateway’s call, with what makes them happen once', function (): void {
    $about = new Headers($this->world->school, MessageKind::Account);
    $text = ($this->put)('+12025550111', 'Code', 'Your code: 123 456', $about, 'text');
    $none = ($this->put)('+12025550199', 'Code', 'Your code: 123 456', $about, 'text');
    ($this->hand)();
    expect($this->gateway->texts())
        ->toBe([['id' => $text->id, 'to' => '+12025550111', 'text' => 'Your code: 123 456']])
        ->and(($this->state)($text))
        ->toBe(MessageState::Sent)
        ->and(($this->state)($none))
        ->toBe(MessageState::Refused)
        ->and($none->problem)
        ->toBe('The text gateway says: that number does not exist');
});

it('holds up no mail for a gateway of texts that is gone', function (): void {
    config(['vantrel.texts.url' => 'http://127.0.0.1:9/messages']);
    $about = new Headers($this->world->school, MessageKind::Account);
    $texts = array_map(fn(int $n) => ($this->put)("+1202555010$n", 'Code', 'x', $about, 'text'), [1, 2, 3]);
    $mail = ($this->put)('petra@lanternfield.example');
    $busy = ($this->put)('busy@shoremail.example');
    ($this->hand)();
    expect(($this->state)($mail))->toBe(MessageState::Sent);
    foreach ($texts as $text) {
        expect(($this->state)($text))
            ->toBe(MessageState::Waiting)
            ->and($text->tries)
            ->toBe(0)
            ->and($text->claimed_until)
            ->toBeNull();
    }
    // What is only for later keeps its own time.
    $busy->update(['tries' => 3, 'next_at' => now()->subMinute()->format('Y-m-d H:i:s')]);
    ($this->hand)();
    expect($busy->refresh()->next_at > now()->addMinutes(50)->format('Y-m-d H:i:s'))->toBeTrue();
});

it('goes out with what was written, and not with what was taken back', function (): void {
    try {
        DB::transaction(function (): void {
            ($this->put)('petra@lanternfield.example');
            throw new RuntimeException('no');
        });
    } catch (RuntimeException) {
        // It is as if nothing had been asked for.
    }
    ($this->hand)();
    expect(OutgoingMessage::query()->count())
        ->toBe(0)
        ->and($this->gateway->deliveries())
        ->toBe([]);
});
