<?php

declare(strict_types=1);

use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

const ONCE = ['Idempotency-Key' => '00000000000000000000000000000001'];

beforeEach(function (): void {
    $this->world = World::make();
    $this->uri = "/api/sections/{$this->world->section}/invitations";
    $this->actingAs($this->world->as('coordinator'));
});

$asks = ['email' => 'new.colleague@lanternfield.example', 'role' => 'co_teacher'];

it('does once what is asked twice under one key, and answers both alike', function () use ($asks): void {
    $first = $this->postJson($this->uri, $asks, ONCE)->assertOk();
    $mails = OutgoingMessage::query()->count();
    $again = $this->postJson($this->uri, $asks, ONCE)->assertOk();
    expect($again->getContent())
        ->toBe($first->getContent())
        ->and(DB::table('invitations')->where('email', $asks['email'])->count())
        ->toBe(1)
        ->and(OutgoingMessage::query()->count())
        ->toBe($mails);
});

it('takes another wish, another person and a request without a key for what they are', function () use ($asks): void {
    $this->postJson($this->uri, $asks, ONCE)->assertOk();
    $this->postJson($this->uri, [...$asks, 'email' => 'second@lanternfield.example'], ONCE)->assertOk();
    expect(DB::table('invitations')->count())->toBe(2);
    // Without the key it is asked anew, and refused: there is an open invitation.
    $this->postJson($this->uri, $asks)->assertStatus(422);
    $this->actingAs($this->world->as('student'));
    $this->postJson($this->uri, $asks, ONCE)->assertForbidden();
});

it('keeps no refusal: what is mended is taken under the same key', function () use ($asks): void {
    $this->postJson($this->uri, [...$asks, 'email' => 'nothing'], ONCE)->assertStatus(422);
    $this->postJson($this->uri, $asks, ONCE)->assertOk();
});

it('refuses the second while the first is being done', function () use ($asks): void {
    $body = (string) json_encode($asks);
    $name =
        'once|' .
        hash(
            'sha256',
            implode("\n", [
                $this->world->people['coordinator'],
                'POST',
                ltrim($this->uri, '/'),
                ONCE['Idempotency-Key'],
                $body,
            ]),
        );
    $lock = Cache::lock("$name|now", 60);
    $lock->get();
    $this->postJson($this->uri, $asks, ONCE)
        ->assertStatus(409)
        ->assertJsonPath('detail', 'This is being done already. Wait a moment, then look whether it is there.');
    $lock->release();
    $this->postJson($this->uri, $asks, ONCE)->assertOk();
});

it('repeats an answer without words as it was', function () use ($asks): void {
    $this->postJson($this->uri, $asks)->assertOk();
    $invitation = DB::table('invitations')->where('email', $asks['email'])->value('id');
    $this->deleteJson("/api/invitations/$invitation", [], ONCE)->assertNoContent();
    $entries = DB::table('ledger_entries')->count();
    $this->deleteJson("/api/invitations/$invitation", [], ONCE)->assertNoContent();
    // Without the key it is asked anew, and refused: there is nothing to withdraw any more.
    $this->deleteJson("/api/invitations/$invitation")->assertStatus(422);
    expect(DB::table('ledger_entries')->count())->toBe($entries);
});

it('makes a file with secrets once, and says that it was lost rather than keep it', function (): void {
    $uri = "/api/sections/{$this->world->section}/room-pass";
    $wish = ['hours' => 'any', 'paper' => 'a4'];
    $this->postJson($uri, $wish, ONCE)
        ->assertOk()
        ->assertHeader('Content-Type', 'application/pdf');
    $passes = DB::table('room_passes')->count();
    $this->postJson($uri, $wish, ONCE)
        ->assertStatus(410)
        ->assertJsonPath('detail', 'It was done, but what it made was lost on its way. Ask for it once more.');
    expect(DB::table('room_passes')->count())->toBe($passes);
    $this->postJson($uri, $wish, ['Idempotency-Key' => str_repeat('2', 32)])->assertOk();
    expect(DB::table('room_passes')->count())->toBe($passes + 1);
});

it('answers from memory only who still may', function () use ($asks): void {
    $lead = $this->world->as('lead');
    $this->actingAs($lead);
    $this->postJson($this->uri, $asks, ONCE)->assertOk();
    DB::table('enrollments')
        ->where('person_id', $lead->id)
        ->update(['ends_on' => '2026-08-25']);
    $this->postJson($this->uri, $asks, ONCE)->assertForbidden();
});
