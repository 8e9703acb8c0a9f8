<?php

declare(strict_types=1);

use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->actingAs($this->world->as('guardian'));
    $this->codeTo = function (string $to): string {
        preg_match(
            '/\d{3}-\d{3}/',
            (string) OutgoingMessage::query()->where('to_address', $to)->orderByDesc('id')->value('text'),
            $m,
        );

        return $m[0] ?? '';
    };
});

it('changes an address once both the new and the old one have answered', function (): void {
    $this->postJson('/api/own/contact', ['what' => 'email', 'value' => 'New.Address@shoremail.example'])
        ->assertOk()
        ->assertJsonPath('old', true);
    $codes = [
        'new' => ($this->codeTo)('new.address@shoremail.example'),
        'old' => ($this->codeTo)('helene@shoremail.example'),
    ];
    expect($codes['new'])->not->toBe('')->and($codes['old'])->not->toBe('');
    $this->postJson('/api/own/contact/confirm', ['new' => $codes['new']])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['old']]);
    $this->postJson('/api/own/contact/confirm', [...$codes, 'new' => '000-000'])->assertJsonStructure([
        'errors' => ['new'],
    ]);
    expect($this->getJson('/api/own/contact')->json('email'))->toBe('helene@shoremail.example');
    $this->postJson('/api/own/contact/confirm', $codes)
        ->assertOk()
        ->assertJson(['email' => 'new.address@shoremail.example', 'emailConfirmed' => true]);
    // What was sent works once.
    $this->postJson('/api/own/contact/confirm', $codes)->assertStatus(422);
    expect(DB::table('ledger_entries')->orderByDesc('seq')->value('title'))->toBe('Address of Hélène Marchetti');
});

it('confirms a number by a text, and asks the old one the next time', function (): void {
    $this->postJson('/api/own/contact', ['what' => 'phone', 'value' => 'no number'])->assertStatus(422);
    $this->postJson('/api/own/contact', ['what' => 'phone', 'value' => '(202) 555-0143'])->assertJsonPath('old', false);
    $this->postJson('/api/own/contact/confirm', ['new' => ($this->codeTo)('+12025550143')])
        ->assertOk()
        ->assertJson(['phone' => '+12025550143', 'phoneConfirmed' => true]);
    $this->postJson('/api/own/contact', ['what' => 'phone', 'value' => '(202) 555-0144'])->assertJsonPath('old', true);
    // The school writes another number: the one that answered counts no more.
    DB::table('people')
        ->where('id', $this->world->people['guardian'])
        ->update(['phone' => '+12025550150']);
    expect($this->getJson('/api/own/contact')->json('phoneConfirmed'))->toBeFalse();
});

it('bears a few wrong codes, half an hour, and a few beginnings', function (): void {
    $this->postJson('/api/own/contact', ['what' => 'phone', 'value' => '(202) 555-0143'])->assertOk();
    $right = ($this->codeTo)('+12025550143');
    foreach (range(1, 5) as $_) {
        $this->postJson('/api/own/contact/confirm', [
            'new' => $right === '000-000' ? '111 111' : '000-000',
        ])->assertStatus(422);
    }
    $this->postJson('/api/own/contact/confirm', ['new' => $right])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'These codes do not work any more. Begin again.');
    $this->postJson('/api/own/contact', ['what' => 'phone', 'value' => '(202) 555-0143'])->assertOk();
    $this->travel(31)->minutes();
    $this->postJson('/api/own/contact/confirm', ['new' => ($this->codeTo)('+12025550143')])->assertStatus(422);
    $this->travelBack();
    foreach (range(1, 3) as $_) {
        $this->postJson('/api/own/contact', ['what' => 'phone', 'value' => '(202) 555-0143'])->assertOk();
    }
    $this->postJson('/api/own/contact', ['what' => 'phone', 'value' => '(202) 555-0143'])->assertStatus(429);
});

it('keeps how often and when a guardian wants to hear', function (): void {
    expect($this->getJson('/api/own/contact')->json())->toMatchArray(['often' => 'weekly', 'hour' => 17]);
    $this->postJson('/api/own/hears', ['often' => 'daily', 'hour' => 6])->assertJson(['often' => 'daily', 'hour' => 6]);
    $this->postJson('/api/own/hears', ['often' => 'off', 'hour' => 6])->assertOk();
    expect($this->getJson('/api/own/contact')->json('often'))->toBe('off');
    $this->postJson('/api/own/hears', ['often' => 'hourly', 'hour' => 6])->assertStatus(422);
    $this->postJson('/api/own/hears', ['often' => 'daily', 'hour' => 24])->assertStatus(422);
});

it('shows its codes to nobody else, once it is no demo', function (): void {
    $this->postJson('/api/own/contact', ['what' => 'email', 'value' => 'new@shoremail.example'])->assertOk();
    $code = ($this->codeTo)('new@shoremail.example');
    expect($code)->not->toBe('');
    config(['vantrel.stand_ins' => false]);
    $said = json_encode(
        $this->actingAs($this->world->as('coordinator'))
            ->getJson("/api/schools/{$this->world->school}/messages")
            ->json(),
    );
    expect($said)->toContain('new@shoremail.example')->not->toContain($code);
});

it('is not for staff, whose addresses the school keeps', function (): void {
    $this->actingAs($this->world->as('lead'))
        ->postJson('/api/own/contact', ['what' => 'email', 'value' => 'new@shoremail.example'])
        ->assertStatus(422);
    expect(OutgoingMessage::query()->count())->toBe(0);
});
