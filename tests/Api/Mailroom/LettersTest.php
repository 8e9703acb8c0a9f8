<?php

declare(strict_types=1);

use App\Mailroom\Jobs\HandOver;
use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Tests\Support\MailStandIn;
use Tests\Support\World;

beforeEach(function (): void {
    $this->travelTo('2026-11-25 15:00:00');
    $this->world = World::make();
    DB::table('schools')->update(['time_zone' => 'America/New_York']);
    DB::table('guardianships')->delete();
    $this->family = function (string $child, string $guardian, array $more = [], array $tie = []): string {
        $student =
            DB::table('people')->where('called_name', $child)->value('id') ??
            $this->world->student("$child Moss", $this->world->section);
        $id =
            DB::table('people')->where('given_name', $guardian)->where('kind', 'guardian')->value('id') ??
            $this->world->person($this->world->school, 'guardian', "$guardian Moss", [
                'email' => strtolower($guardian) . '@shoremail.example',
                ...$more,
            ]);
        $this->world->insert('guardianships', [
            'student_id' => $student,
            'guardian_id' => $id,
            'state' => 'listed',
            ...$tie,
        ]);

        return (string) $id;
    };
    $this->letter = fn(array $more = []): array => [
        'readers' => 'guardians',
        'subject' => 'Trip',
        'body' => "Dear {{name}},\n\n{{children}} go to the museum.",
        ...$more,
    ];
    $this->of = "/api/sections/{$this->world->section}/letter";
    $this->all = "/api/schools/{$this->world->school}/mailings";
    // Looked at, and sent as it was seen.
    $this->send = function (string $at, array $letter) {
        $plan = $at === $this->of ? "$this->of/plan" : "$this->all/plan";
        $seen = $this->postJson($plan, $letter)->assertOk()->json('seen');

        return $this->postJson($at, [...$letter, 'seen' => $seen]);
    };
    $this->mails = fn() => OutgoingMessage::query()->where('kind', 'letter')->orderBy('to_address')->get();
});

it('is looked at first: to how many, in which languages, and who cannot be reached', function (): void {
    ($this->family)('Ada', 'Layla');
    ($this->family)('Kit', 'Layla');
    ($this->family)('Kit', 'Omar', ['language' => 'uk']);
    ($this->family)('Kit', 'Silent', ['email' => null]);
    ($this->family)('Kit', 'Away', [], ['restriction' => 'By court order']);
    ($this->family)('Kit', 'Former', [], ['state' => 'ended']);
    DB::table('bounced_addresses')->insert([
        'address' => 'layla@shoremail.example',
        'message_id' => str_repeat('0', 26),
        'said' => 'full',
        'bounced_at' => now(),
    ]);
    $seen = $this->actingAs($this->world->as('lead'))
        ->postJson(
            "$this->of/plan",
            ($this->letter)([
                'subject' => 'Trip of {{section}}',
                'subjects' => ['uk' => 'Музей'],
                'bodies' => ['uk' => 'Вітаємо, {{name}}'],
            ]),
        )
        ->assertOk();
    $seen
        ->assertJsonPath('whom', 'guardians of 3 Heron')
        ->assertJsonPath('count', 2)
        ->assertJsonPath('without', ['Silent Moss'])
        ->assertJsonPath('bounced', ['Layla Moss']);
    expect($seen->json('languages'))
        ->toEqualCanonicalizing(['English' => 1, 'Ukrainian' => 1])
        ->and(collect($seen->json('previews'))->firstWhere('to', 'Layla Moss'))
        ->toMatchArray(['subject' => 'Trip of 3 Heron', 'text' => "Dear Layla Moss,\n\nAda, Kit go to the museum.\n"])
        ->and(collect($seen->json('previews'))->firstWhere('to', 'Omar Moss')['text'])
        ->toBe("Вітаємо, Omar Moss\n")
        // A teacher writes to families and reads no address of theirs.
        ->and((string) $seen->getContent())
        ->not->toContain('shoremail')
        ->not->toContain('Away')
        ->and(OutgoingMessage::query()->count())
        ->toBe(0);
});

it('gives everyone one of their own, with the writer to answer to, and nobody another’s address', function (): void {
    $gateway = MailStandIn::start();
    config(['queue.default' => 'null']);
    try {
        foreach (['Layla', 'Omar', 'Noor'] as $n => $name) {
            ($this->family)(['Ada', 'Kit', 'Bo'][$n], $name);
        }
        DB::table('people')
            ->where('id', $this->world->people['lead'])
            ->update(['email' => 'petra@lanternfield.example', 'email_state' => 'confirmed']);
        $this->actingAs($this->world->as('lead'));
        ($this->send)($this->of, ($this->letter)())
            ->assertOk()
            ->assertJsonPath('said', '3 letters on the way.')
            ->assertJsonPath('mailings.0.count', 3);
        HandOver::dispatchSync();
        $mails = $gateway->mail();
        expect($mails)->toHaveCount(3);
        foreach ($mails as $mail) {
            expect(preg_match_all('/[a-z]+@shoremail\.example/', $mail, $m))
                ->toBeGreaterThan(0)
                ->and(array_unique($m[0]))
                ->toHaveCount(1)
                ->and($mail)
                ->toContain('Reply-To: petra@lanternfield.example')
                // A person has written it.
                ->not->toContain('Auto-Submitted');
        }
    } finally {
        $gateway->end();
    }
});

it('goes later, not while people sleep, and can be stopped until then', function (): void {
    config(['vantrel.mail.host' => '127.0.0.1', 'queue.default' => 'null']);
    ($this->family)('Ada', 'Layla');
    ($this->family)('Kit', 'Omar');
    $this->actingAs($this->world->as('coordinator'));
    ($this->send)($this->all, ($this->letter)(['at' => '2026-11-26T21:30']))
        ->assertOk()
        ->assertJsonPath('said', '2 letters go out when their time has come.')
        ->assertJsonPath('mailings.0.goesAt', '2026-11-27T12:00:00Z');
    $other = ($this->letter)(['subject' => 'Now', 'at' => '2026-11-26T21:30', 'even_quiet' => true]);
    ($this->send)($this->all, $other)->assertJsonPath('mailings.0.goesAt', '2026-11-27T02:30:00Z');
    $id = DB::table('mailings')->orderBy('id')->value('id');
    $this->postJson("$this->all/$id/stop")
        ->assertOk()
        ->assertJsonPath('said', '2 letters stopped.')
        ->assertJsonPath('mailings.1.stopped', 2);
    $this->postJson("$this->all/$id/stop")->assertStatus(422);
    expect(OutgoingMessage::query()->where('state', 'waiting')->count())->toBe(2);
    $this->actingAs($this->world->as('other coordinator'));
    $this->postJson("/api/schools/{$this->world->otherSchool}/mailings/$id/stop")->assertNotFound();
});

it('is for a grade, for those chosen, for staff; in a section for nobody outside it', function (): void {
    ($this->family)('Ada', 'Layla');
    $outside = $this->world->student('Zoe Bell', null, ['grade' => '05', 'email' => 'zoe@lanternfield.example']);
    $this->actingAs($this->world->as('coordinator'));
    $count = fn(array $more, string $at = ''): int => $this->postJson(
        ($at ?: $this->all) . '/plan',
        ($this->letter)(['subject' => 'x', 'body' => 'x', ...$more]),
    )->json('count');
    expect($count(['readers' => 'students', 'grade' => '05']))
        ->toBe(1)
        ->and($count(['readers' => 'students', 'ids' => [$outside]]))
        ->toBe(1)
        ->and($count(['readers' => 'students', 'ids' => [$outside]], $this->of))
        ->toBe(0)
        ->and($count(['readers' => 'staff']))
        ->toBeGreaterThan(3)
        ->and($count(['readers' => 'staff'], $this->of))
        ->toBeLessThan($count(['readers' => 'staff']));
    $nobody = ['readers' => 'students', 'ids' => [$outside], 'body' => 'x'];
    ($this->send)($this->of, ($this->letter)($nobody))->assertStatus(422);
    $this->postJson("$this->all/plan", ($this->letter)(['subject' => 'x {{section}}']))
        ->assertStatus(422)
        ->assertJsonValidationErrors('subject');
    $this->postJson("$this->all/plan", ($this->letter)(['body' => 'x {{password}}']))
        ->assertStatus(422)
        ->assertJsonValidationErrors('body');
});

it('hands nothing to whoever was kept away after it was written', function (): void {
    $gateway = MailStandIn::start();
    config(['queue.default' => 'null']);
    try {
        $guardian = ($this->family)('Ada', 'Layla');
        ($this->family)('Kit', 'Omar');
        $this->actingAs($this->world->as('coordinator'));
        ($this->send)($this->all, ($this->letter)())->assertOk();
        DB::table('guardianships')
            ->where('guardian_id', $guardian)
            ->update(['restriction' => 'By court order']);
        HandOver::dispatchSync();
        expect(array_map(fn(string $l): string => explode(' ', $l)[2], $gateway->deliveries()))->toBe([
            'omar@shoremail.example',
        ]);
    } finally {
        $gateway->end();
    }
});

it('goes to nobody else than it was looked at for', function (): void {
    ($this->family)('Ada', 'Layla');
    $this->actingAs($this->world->as('coordinator'));
    $seen = $this->postJson("$this->all/plan", ($this->letter)())->json('seen');
    ($this->family)('Kit', 'Omar');
    $this->postJson($this->all, ($this->letter)(['seen' => $seen]))->assertStatus(409);
    $this->postJson($this->all, ($this->letter)())->assertStatus(409);
    // Nor is anything else sent than what was read.
    $seen = $this->postJson("$this->all/plan", ($this->letter)())->json('seen');
    $this->postJson($this->all, ($this->letter)(['body' => 'Another', 'seen' => $seen]))->assertStatus(409);
    expect(OutgoingMessage::query()->count())->toBe(0);
    ($this->send)($this->all, ($this->letter)())->assertOk();
    expect(OutgoingMessage::query()->count())->toBe(2);
});
