<?php

declare(strict_types=1);

use App\Mailroom\Headers;
use App\Mailroom\Outbox;
use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Mailroom\MessageKind;

beforeEach(function (): void {
    $this->world = World::make();
    config(['vantrel.mail.host' => '127.0.0.1', 'queue.default' => 'null']);
    $this->put = function (string $to, string $state, array $more = []): OutgoingMessage {
        $about = new Headers($this->world->school, MessageKind::Account, 'Lanternfield Primary');
        $text = "Open it: https://a.example/new-password#abcdefghijklmnop1234\n\nCode 123-456.";
        $message = app(Outbox::class)->put($about, 'mail', $to, "About $to", $text, null);
        $message->update(['state' => $state, ...$more]);

        return $message;
    };
    $this->messages = "/api/schools/{$this->world->school}/messages";
    $this->actingAs($this->world->as('coordinator'));
});

it('lists what did not arrive, what waits, and whom something was sent to', function (): void {
    ($this->put)('sent@a.example', 'sent');
    $late = ($this->put)('late@a.example', 'waiting', ['next_at' => now()->subHour()]);
    ($this->put)('soon@a.example', 'waiting');
    $amiss = array_map(fn(string $s) => ($this->put)("$s@a.example", $s)->id, ['refused', 'bounced', 'doubtful']);
    ($this->put)('done@a.example', 'refused', ['settled_at' => now()]);
    $all = $this->getJson($this->messages)->assertOk();
    expect([$all->json('amiss'), $all->json('waiting'), count($all->json('messages'))])->toBe([4, 2, 7]);
    $ids = array_column($this->getJson("$this->messages?show=amiss")->json('messages'), 'id');
    expect($ids)->toEqualCanonicalizing([$late->id, ...$amiss]);
    expect(array_column($this->getJson("$this->messages?show=waiting")->json('messages'), 'to'))->toEqualCanonicalizing(
        ['soon@a.example', 'late@a.example'],
    );
    expect(array_column($this->getJson("$this->messages?text=soon")->json('messages'), 'to'))->toBe(['soon@a.example']);
    expect($this->getJson("$this->messages?text=%25")->json('messages'))->toBe([]);
    $this->getJson("$this->messages?show=all")->assertStatus(422);
    $loops = collect($this->getJson("/api/schools/{$this->world->school}/desk")->json('loops'))->keyBy('key');
    expect($loops['mail']['count'] ?? null)->toBe(4);
});

it('sends again what did not arrive, once, and sets the old one aside', function (): void {
    $message = ($this->put)('ada@a.example', 'bounced', ['problem' => 'There is no such address.']);
    DB::table('bounced_addresses')->insert([
        'address' => 'ada@a.example',
        'message_id' => $message->id,
        'said' => 'There is no such address.',
        'bounced_at' => now(),
    ]);
    $this->getJson("/api/messages/$message->id")->assertJsonPath('bounced', 'There is no such address.');
    $again = $this->postJson("/api/messages/$message->id/again")->assertOk();
    expect($again->json('id'))
        ->not->toBe($message->id)
        ->and($again->json('state'))
        ->toBe('waiting')
        ->and($again->json('to'))
        ->toBe('ada@a.example')
        ->and($message->refresh()->settled_at)
        ->not->toBeNull()
        ->and(DB::table('bounced_addresses')->count())
        ->toBe(0);
    // Whoever presses too, and later, sends no second one.
    $this->postJson("/api/messages/$message->id/again")->assertStatus(422);
    expect(OutgoingMessage::query()->count())->toBe(2);
    $sent = ($this->put)('b@a.example', 'sent');
    $this->postJson("/api/messages/$sent->id/again")->assertStatus(422);
    $this->postJson("/api/messages/$sent->id/stop")->assertStatus(422);
});

it('stops what waits, and says who did', function (): void {
    $message = ($this->put)('ada@a.example', 'waiting');
    $this->postJson("/api/messages/$message->id/stop")
        ->assertOk()
        ->assertJsonPath('state', 'stopped')
        ->assertJsonPath('problem', fn(string $said): bool => str_starts_with($said, 'Stopped by '));
    $this->postJson("/api/messages/$message->id/settle")
        ->assertOk()
        ->assertJsonPath('amiss', false);
});

it(
    'shows a message as a page that can do nothing, and as a file, without what only its receiver may use',
    function (): void {
        config(['vantrel.stand_ins' => false]);
        $message = ($this->put)('ada@a.example', 'sent');
        $page = $this->get("/api/messages/$message->id/html")->assertOk();
        expect((string) $page->headers->get('Content-Security-Policy'))
            ->toContain("default-src 'none'")
            ->toContain('sandbox')
            ->and((string) $page->getContent())
            ->toContain('new-password#')
            ->not->toContain('abcdefghijklmnop1234')
            ->not->toContain('123-456');
        $file = $this->get("/api/messages/$message->id/eml")->assertOk();
        $eml = (string) file_get_contents($file->getFile()->getPathname());
        expect((string) $file->headers->get('Content-Type'))
            ->toBe('message/rfc822')
            ->and($eml)
            ->toContain('Message-ID: <' . strtolower($message->id))
            ->and(quoted_printable_decode($eml))
            ->not->toContain('abcdefghijklmnop1234')
            ->not->toContain('123-456');
        $this->actingAs($this->world->as('other coordinator'));
        $this->get("/api/messages/$message->id/html")->assertForbidden();
    },
);

it('marks an account whose mail came back', function (): void {
    $person = $this->world->as('lead');
    DB::table('bounced_addresses')->insert([
        'address' => $person->email,
        'message_id' => str_repeat('0', 26),
        'said' => 'The mailbox is full.',
        'bounced_at' => now(),
    ]);
    $this->getJson("/api/people/$person->id")
        ->assertOk()
        ->assertJsonPath('bounced', 'The mailbox is full.');
});
