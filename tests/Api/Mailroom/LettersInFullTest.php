<?php

declare(strict_types=1);

use App\Mailroom\Jobs\HandOver;
use App\Mailroom\LetterWhom;
use App\Mailroom\Receiver;
use App\Models\OutgoingMessage;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\Support\MailStandIn;
use Tests\Support\World;
use Vantrel\Core\Mailroom\Readers;

beforeEach(function (): void {
    $this->travelTo('2026-11-25 15:00:00');
    $this->world = World::make();
    DB::table('schools')->update(['time_zone' => 'America/New_York']);
    DB::table('guardianships')->delete();
    foreach (
        [
            ['Both', 'both@shoremail.example', '+12025550101'],
            ['Mail', 'mail@shoremail.example', null],
            ['Phone', null, '+12025550102'],
            ['Back', 'back@shoremail.example', '+12025550103'],
            ['None', null, null],
        ]
        as [$name, $email, $phone]
    ) {
        $this->world->insert('guardianships', [
            'student_id' => $this->world->people['student'],
            'guardian_id' => $this->world->person($this->world->school, 'guardian', "$name Moss", [
                'email' => $email,
                'phone' => $phone,
            ]),
            'state' => 'listed',
        ]);
    }
    DB::table('bounced_addresses')->insert([
        'address' => 'back@shoremail.example',
        'message_id' => str_repeat('0', 26),
        'said' => 'full',
        'bounced_at' => now(),
    ]);
    $this->of = "/api/sections/{$this->world->section}/letter";
    $this->letter = fn(array $more = []): array => [
        'readers' => 'guardians',
        'subject' => 'Trip',
        'body' => 'On Friday, {{name}}.',
        ...$more,
    ];
    $this->send = function (array $letter) {
        $seen = $this->postJson("$this->of/plan", $letter)
            ->assertOk()
            ->json('seen');

        return $this->postJson($this->of, [...$letter, 'seen' => $seen]);
    };
    $this->file = fn(string $name, string $content) => $this->post(
        "$this->of/files",
        ['file' => UploadedFile::fake()->createWithContent($name, $content)],
        ['Accept' => 'application/json'],
    );
    $this->actingAs($this->world->as('lead'));
});

it('counts texts in parts, and reaches by text whom mail does not', function (): void {
    $long = str_repeat('On Friday the buses leave from the harbor. ', 8);
    $seen = $this->postJson("$this->of/plan", ($this->letter)(['by' => 'text', 'subject' => '', 'body' => $long]))
        ->assertOk()
        ->assertJsonPath('count', 3)
        ->assertJsonPath('texts', 3)
        ->assertJsonPath('without', ['Mail Moss', 'None Moss']);
    // 22 characters of the school and 343 of the text: three parts of 153 for each.
    $seen->assertJsonPath('parts', 9)->assertJsonPath('previews.0.parts', 3)->assertJsonPath('previews.0.subject', '');
    expect($seen->getContent())->not->toContain('+1202');
    $this->postJson("$this->of/plan", ($this->letter)(['by' => 'either']))
        ->assertJsonPath('count', 4)
        ->assertJsonPath('texts', 2)
        ->assertJsonPath('without', ['None Moss'])
        ->assertJsonPath('bounced', []);
    $this->postJson("$this->of/plan", ($this->letter)(['by' => 'either', 'body' => str_repeat('x', 601)]))
        ->assertUnprocessable()
        ->assertJsonValidationErrors('body');
});

it('hands texts and letters over by their gateways, each to one', function (): void {
    $gateway = MailStandIn::start();
    config(['queue.default' => 'null']);
    try {
        ($this->send)(($this->letter)(['by' => 'either']))->assertOk()->assertJsonPath('mailings.0.texts', 2);
        HandOver::dispatchSync();
        expect(array_column($gateway->texts(), 'text', 'to'))
            ->toEqual([
                '+12025550102' => 'Lanternfield Primary: On Friday, Phone Moss.',
                '+12025550103' => 'Lanternfield Primary: On Friday, Back Moss.',
            ])
            ->and($gateway->mail())
            ->toHaveCount(2)
            ->and(implode('', $gateway->mail()))
            ->toContain('To: both@shoremail.example')
            ->toContain('To: mail@shoremail.example');
    } finally {
        $gateway->end();
    }
});

it('sends files with a letter, kept once, and none of another’s or by text', function (): void {
    $pdf = "%PDF-1.7\n" . random_bytes(300);
    $id = ($this->file)('Map of the harbor.pdf', $pdf)->assertOk()->assertJsonPath('size', 309)->json('id');
    ($this->file)('page.pdf', '<html>')->assertUnprocessable()->assertJsonValidationErrors('files');
    ($this->file)('big.pdf', '%PDF-1.7' . str_repeat('x', 2_000_000))->assertUnprocessable();
    $this->postJson("$this->of/plan", ($this->letter)(['by' => 'text', 'files' => [$id]]))->assertUnprocessable();
    $this->actingAs($this->world->as('co_teacher'));
    $this->postJson("$this->of/plan", ($this->letter)(['files' => [$id]]))->assertUnprocessable();
    $this->actingAs($this->world->as('lead'));
    // What goes with it is part of what was looked at.
    $seen = $this->postJson("$this->of/plan", ($this->letter)())->json('seen');
    $this->postJson($this->of, ($this->letter)(['files' => [$id], 'seen' => $seen]))->assertConflict();
    $gateway = MailStandIn::start();
    config(['queue.default' => 'null']);
    try {
        ($this->send)(($this->letter)(['files' => [$id]]))->assertOk();
        HandOver::dispatchSync();
        foreach ($gateway->mail() as $mail) {
            expect($mail)
                ->toContain('filename="Map of the harbor.pdf"')
                ->and(str_replace(["\r", "\n"], '', $mail))
                ->toContain(base64_encode($pdf));
        }
        expect($gateway->mail())
            ->toHaveCount(3)
            ->and(DB::table('mailing_files')->count())
            ->toBe(1);
    } finally {
        $gateway->end();
    }
    // Sent again it has its files and whom it is answered to.
    $one = OutgoingMessage::query()->where('kind', 'letter')->firstOrFail();
    $one->update(['state' => 'refused', 'reply_to' => 'petra@lanternfield.example']);
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/messages/$one->id/again")
        ->assertOk();
    $again = OutgoingMessage::query()->orderByDesc('id')->firstOrFail();
    expect([$again->mailing_id, $again->reply_to])->toBe([$one->mailing_id, 'petra@lanternfield.example']);
    $this->getJson("/api/messages/$again->id")->assertJsonPath('files', ['Map of the harbor.pdf']);
    $this->actingAs($this->world->as('lead'));
    // Gone with one letter, it goes with no other.
    $this->postJson("$this->of/plan", ($this->letter)(['files' => [$id]]))->assertUnprocessable();
});

it('keeps no more files than somebody could send', function (): void {
    for ($i = 0; $i < 30; $i++) {
        ($this->file)("a$i.pdf", '%PDF-1.7 a')->assertOk();
    }
    ($this->file)('more.pdf', '%PDF-1.7 a')->assertUnprocessable()->assertJsonValidationErrors('files');
});

it('clears files away that nobody sent, and those of letters of which nothing is left', function (): void {
    ($this->file)('a.pdf', '%PDF-1.7 a')->assertOk();
    $sent = ($this->file)('b.pdf', '%PDF-1.7 b')->json('id');
    ($this->send)(($this->letter)(['files' => [$sent]]))->assertOk();
    Artisan::call('vantrel:clean-up');
    expect(DB::table('mailing_files')->count())->toBe(2);
    $this->travel(2)->days();
    Artisan::call('vantrel:clean-up');
    expect(DB::table('mailing_files')->pluck('id')->all())->toBe([$sent]);
    OutgoingMessage::query()->delete();
    Artisan::call('vantrel:clean-up');
    expect(DB::table('mailing_files')->count())->toBe(0);
});

it('keeps letters for another time: a teacher’s own, and the school’s by a coordinator', function (): void {
    $kept = ['name' => 'Trip', 'subject' => 'Trip of {{section}}', 'body' => 'x', 'bodies' => ['uk' => 'Вітаємо']];
    $own = $this->postJson("$this->of/kept", $kept)
        ->assertOk()
        ->assertJsonPath('templates.0.bodies.uk', 'Вітаємо')
        ->json('templates.0.id');
    $this->postJson("$this->of/kept", [...$kept, 'body' => 'y'])
        ->assertJsonCount(1, 'templates')
        ->assertJsonPath('templates.0.body', 'y');
    $this->postJson("$this->of/kept", [...$kept, 'shared' => true])->assertUnprocessable();
    $this->postJson("$this->of/kept", [...$kept, 'name' => ' '])->assertUnprocessable();
    $this->actingAs($this->world->as('coordinator'));
    $all = "/api/schools/{$this->world->school}/mailings/kept";
    $shared = $this->postJson($all, [...$kept, 'name' => 'Snow', 'shared' => true])
        ->assertJsonCount(1, 'templates')
        ->json('templates.0.id');
    // Another’s own is neither seen nor forgotten.
    $mine = DB::table('letter_templates')->where('name', 'Trip')->value('id');
    $this->deleteJson("$all/$mine")->assertNotFound();
    $this->actingAs($this->world->as('lead'));
    $this->getJson("$this->of/kept")->assertJsonCount(2, 'templates');
    $this->deleteJson("$this->of/kept/$shared")->assertNotFound();
    $this->deleteJson("$this->of/kept/$mine")->assertJsonCount(1, 'templates');
    expect($own)->not->toBe($mine);
});

it('waits for the end of the school’s own quiet hours', function (): void {
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/schools/{$this->world->school}/settings", ['quiet_from' => 9, 'quiet_to' => 12])
        ->assertOk()
        ->assertJsonPath('quietFrom', 9);
    $this->postJson("/api/schools/{$this->world->school}/settings", ['quiet_from' => 24])->assertUnprocessable();
    // Ten in the morning in New York.
    ($this->send)(($this->letter)())->assertJsonPath('mailings.0.goesAt', '2026-11-25T17:00:00Z');
});

it('goes through those of one name in the same order always, and says who reads another language', function (): void {
    $same = array_map(
        fn(int $i): string => $this->world->person($this->world->school, 'guardian', 'Same Moss', [
            'email' => "same$i@shoremail.example",
            'language' => ['es', 'so', 'en', null][$i % 4],
        ]),
        range(1, 40),
    );
    // Tied in the other order than they are compared in.
    foreach (array_reverse($same) as $id) {
        $this->world->insert('guardianships', [
            'student_id' => $this->world->people['student'],
            'guardian_id' => $id,
            'state' => 'listed',
        ]);
    }
    $whom = new LetterWhom($this->world->schoolModel(), Readers::Guardians);
    $order = array_map(fn(Receiver $r): string => $r->id, $whom->receivers());
    expect(array_values(array_intersect($order, $same)))->toBe($same);
    expect($this->postJson("$this->of/plan", ($this->letter)())->json('unwritten'))->toEqual([
        'Spanish' => 10,
        'Somali' => 10,
    ]);
});

it('lists the messages of one letter, or to one person', function (): void {
    ($this->send)(($this->letter)())->assertOk();
    ($this->send)(($this->letter)(['subject' => 'Boats']))->assertOk();
    $id = DB::table('mailings')->where('subject', 'Boats')->value('id');
    $this->actingAs($this->world->as('coordinator'));
    $all = "/api/schools/{$this->world->school}/messages";
    $this->getJson("$all?mailing=$id")
        ->assertJsonCount(3, 'messages')
        ->assertJsonPath('narrowed', 'Boats');
    $person = DB::table('people')->where('given_name', 'Mail')->value('id');
    $this->getJson("$all?person=$person")
        ->assertJsonCount(2, 'messages')
        ->assertJsonPath('narrowed', 'Mail Moss');
    // Of another school’s letter there is nothing.
    $this->actingAs($this->world->as('other coordinator'));
    $this->getJson("/api/schools/{$this->world->otherSchool}/messages?mailing=$id")
        ->assertJsonCount(0, 'messages')
        ->assertJsonPath('narrowed', '');
});
