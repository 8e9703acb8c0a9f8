<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->child = $this->world->people['student'];
    $this->guardian = $this->world->people['guardian'];
    $this->school = "/api/schools/{$this->world->school}/held-askings";
    $this->as = fn(string $role) => $this->actingAs($this->world->as($role));
    $this->held = fn(): string => ($this->as)('guardian')
        ->get("/api/own/held/$this->child?format=json")
        ->getContent();
});

it('gives a guardian what is held about their child once the school has looked, and for some days', function (): void {
    ($this->as)('guardian')
        ->getJson('/api/own/held')
        ->assertOk()
        ->assertJsonPath('children.0.id', $this->child)
        ->assertJsonPath('children.0.state', '');
    $this->get("/api/own/held/$this->child")->assertStatus(404);
    $this->postJson("/api/own/held/$this->child")
        ->assertOk()
        ->assertJsonPath('children.0.state', 'waiting');
    $this->postJson("/api/own/held/$this->child")->assertOk();
    $this->get("/api/own/held/$this->child")->assertStatus(404);

    $asked = ($this->as)('coordinator')->getJson($this->school)->assertOk()->assertJsonCount(1, 'askings');
    $id = $asked->json('askings.0.id');
    $this->getJson("/api/schools/{$this->world->school}/desk")->assertJsonFragment(['key' => 'held', 'count' => 1]);
    $seen = $this->get("$this->school/$id?format=json")
        ->assertOk()
        ->getContent();
    $this->postJson("$this->school/$id/give")
        ->assertOk()
        ->assertJsonPath('askings', []);
    $this->postJson("$this->school/$id/give")->assertStatus(404);

    // The very thing that was looked at, but for what has been written since.
    $got = json_decode(($this->held)(), true);
    expect($got['held']['The account'])->toBe(json_decode($seen, true)['held']['The account']);
    ($this->as)('guardian')
        ->get("/api/own/held/$this->child")
        ->assertOk()
        ->assertHeader('Content-Type', 'application/pdf');
    expect(DB::table('outgoing_messages')->where('subject', 'What you asked the school for')->count())->toBe(1);
    expect(DB::table('ledger_entries')->where('action', 'seen')->pluck('title')->unique()->all())->toHaveCount(1);
    $this->travel(14)->days();
    $this->travel(1)->minutes();
    $this->app['session']->driver()->flush();
    ($this->as)('guardian')
        ->get("/api/own/held/$this->child")
        ->assertStatus(404);
    $this->getJson('/api/own/held')->assertJsonPath('children.0.state', '');
});

it('says nothing in it of another guardian, and everything of the one who asks', function (): void {
    $father = $this->world->person($this->world->school, 'guardian', 'Bruno Quillfeather', [
        'email' => 'bruno.q@shoremail.example',
        'phone' => '+12025550143',
    ]);
    $tie = $this->world->insert('guardianships', [
        'student_id' => $this->child,
        'guardian_id' => $father,
        'relationship' => 'Father',
        'state' => 'connected',
    ]);
    $this->world->insert('guardian_claims', [
        'student_id' => $this->child,
        'given_name' => 'Bruno',
        'family_name' => 'Quillfeather',
        'email' => 'bruno.old@shoremail.example',
        'state' => 'refused',
        'reason' => 'He must not know where she lives',
        'made_at' => now(),
    ]);
    $name = trim((string) DB::table('people')->where('id', $this->child)->value('given_name'));
    $family = trim((string) DB::table('people')->where('id', $this->child)->value('family_name'));
    foreach (["$name $family and Bruno Quillfeather came to the office", "$name $family came to the office"] as $text) {
        DB::table('outgoing_messages')->insert([
            'id' => (string) Str::ulid(),
            'school_id' => $this->world->school,
            'to_address' => 'office@lanternfield.example',
            'subject' => 'Today',
            'text' => $text,
            'made_at' => now(),
        ]);
    }
    ($this->as)('guardian')
        ->postJson("/api/own/held/$this->child")
        ->assertOk();
    $id = DB::table('held_askings')->value('id');
    ($this->as)('coordinator')
        ->postJson("$this->school/$id/give")
        ->assertOk();
    $held = ($this->held)();
    expect($held)
        ->not->toContain('Bruno')
        ->not->toContain('Quillfeather')
        ->not->toContain('bruno')
        ->not->toContain('0143')
        ->not->toContain('where she lives')
        ->toContain("$name $family came to the office")
        ->toContain('Marchetti');
    // The office itself reads all of it, and that stands in the Ledger.
    $all = ($this->as)('coordinator')
        ->get("/api/people/$this->child/held?format=json")
        ->assertOk()
        ->getContent();
    expect($all)->toContain('Quillfeather');
    expect(DB::table('ledger_entries')->where('title', 'like', 'What is held about %')->count())->toBe(3);

    // Kept away since: nothing more can be fetched.
    DB::table('guardianships')
        ->where('guardian_id', $this->guardian)
        ->update(['restriction' => 'no_contact']);
    ($this->as)('guardian')
        ->get("/api/own/held/$this->child")
        ->assertStatus(404);
    expect($tie)->toBeString();
});

it('can be turned down, asked for again, and is nobody else’s to ask or answer', function (): void {
    ($this->as)('guardian')
        ->postJson("/api/own/held/$this->child")
        ->assertOk();
    $id = DB::table('held_askings')->value('id');
    foreach (['other coordinator', 'lead'] as $role) {
        ($this->as)($role)
            ->postJson("$this->school/$id/give")
            ->assertStatus(403);
    }
    $other = "/api/schools/{$this->world->otherSchool}/held-askings";
    ($this->as)('other coordinator')
        ->postJson("$other/$id/give")
        ->assertStatus(404);
    $this->get("$other/$id")->assertStatus(404);
    ($this->as)('coordinator')
        ->postJson("$this->school/$id/refuse", ['reason' => 'A court looks at it first'])
        ->assertOk();
    ($this->as)('guardian')
        ->getJson('/api/own/held')
        ->assertJsonPath('children.0.state', 'refused')
        ->assertDontSee('court');
    $this->postJson("/api/own/held/$this->child")->assertJsonPath('children.0.state', 'waiting');
    $stranger = $this->world->student('Noor Haddad', $this->world->section);
    $this->postJson("/api/own/held/$stranger")->assertStatus(404);
    $this->get("/api/own/held/$stranger")->assertStatus(404);
});
