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
