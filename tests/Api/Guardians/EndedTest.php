<?php

declare(strict_types=1);

use App\Guardians\InviteLinks;
use App\Models\OutgoingMessage;
use App\Models\School;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// Ended means ended: with the next request, for sessions that are open and for mail that waits.

beforeEach(function (): void {
    $this->world = World::make();
    $this->guardian = $this->world->people['guardian'];
    $this->tie = (string) DB::table('guardianships')->where('guardian_id', $this->guardian)->value('id');
    $this->at = "/api/schools/{$this->world->school}/guardians";
    $this->office = fn(string $path, array $body) => $this->actingAs($this->world->as('coordinator'))->postJson(
        $this->at . $path,
        $body,
    );
});

it('signs a guardian out with the request after they are disconnected', function (string $path, array $body): void {
    config(['session.driver' => 'database']);
    DB::table('sessions')->insert([
        ['id' => 'one', 'user_id' => $this->guardian, 'payload' => '', 'last_activity' => time(), 'stays' => 0],
        ['id' => 'two', 'user_id' => $this->guardian, 'payload' => '', 'last_activity' => time(), 'stays' => 1],
        [
            'id' => 'teacher',
            'user_id' => $this->world->people['lead'],
            'payload' => '',
            'last_activity' => time(),
            'stays' => 1,
        ],
    ]);
    $this->actingAs($this->world->as('guardian'));
    expect($this->getJson('/api/home')->json('students'))->toHaveCount(1);
    ($this->office)("/{$this->tie}$path", $body)->assertOk();
    expect(DB::table('sessions')->pluck('id')->all())->toBe(['teacher']);
    $this->actingAs($this->world->as('guardian'));
    expect($this->getJson('/api/home')->json('students'))->toBe([]);
    // The child’s own record is what it was.
    expect(DB::table('people')->where('id', $this->world->people['student'])->value('state'))->toBe('active');
})->with([['/disconnect', []], ['/restrict', ['why' => 'court order']]]);

it('ends what a merge or an undo ends as well', function (): void {
    $second = $this->world->person($this->world->school, 'guardian', 'Hélène Marchetti', [
        'email' => 'h2@shoremail.example',
    ]);
    $this->world->insert('guardianships', [
        'student_id' => $this->world->people['student'],
        'guardian_id' => $second,
        'state' => 'listed',
        'restriction' => 'court order',
    ]);
    DB::table('sessions')->insert([
        ['id' => 'one', 'user_id' => $this->guardian, 'payload' => '', 'last_activity' => time(), 'stays' => 0],
    ]);
    $pair =
        "/api/schools/{$this->world->school}/look-alikes/" .
        min($this->guardian, $second) .
        '-' .
        max($this->guardian, $second);
    $this->actingAs($this->world->as('coordinator'));
    $this->postJson("$pair/merge", ['fingerprint' => $this->getJson($pair)->json('plan.fingerprint')])->assertOk();
    expect(
        DB::table('guardianships')
            ->where('id', $this->tie)
            ->first(['state', 'restriction']),
    )
        ->toMatchArray(['state' => 'ended', 'restriction' => 'court order'])
        ->and(DB::table('sessions')->count())
        ->toBe(0);
    $this->actingAs($this->world->as('guardian'));
    expect($this->getJson('/api/home')->json('students'))->toBe([]);
});

it('hands over no mail to whom was withdrawn, restricted or disconnected while it waited', function (
    array $then,
    int $mails,
): void {
    $school = School::query()->findOrFail($this->world->school);
    $noor = $this->world->student('Noor Haddad');
    $layla = $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
        'email' => 'layla@shoremail.example',
    ]);
    $tie = $this->world->insert('guardianships', [
        'student_id' => $noor,
        'guardian_id' => $layla,
        'state' => 'invited',
        ...$then,
    ]);
    $invitation = $this->world->insert('guardian_invitations', [
        'school_id' => $school->id,
        'guardian_id' => $layla,
        'email' => 'layla@shoremail.example',
        'token_hash' => str_repeat('a', 64),
        'state' => 'open',
        'sent_at' => now(),
        'expires_at' => now()->addDays(28),
    ]);
    app(InviteLinks::class)->put($school, [$invitation], null);
    expect(app(InviteLinks::class)->handOver($school, null, 10))
        ->toBe(1)
        ->and(OutgoingMessage::query()->count())
        ->toBe($mails)
        ->and(app(InviteLinks::class)->handOver($school, null, 10))
        ->toBe(0);
})->with([
    'nothing' => [[], 1],
    'restricted' => [['restriction' => 'court order'], 0],
    'ended' => [['state' => 'ended'], 0],
    'listed again' => [['state' => 'listed'], 0],
]);

it('lets go of a child at the guardian’s own wish, and of nobody else’s', function (): void {
    $other = $this->world->student('Noor Haddad');
    $this->actingAs($this->world->as('guardian'));
    $this->postJson("/api/own/children/$other/leave")->assertNotFound();
    $this->postJson("/api/own/children/{$this->world->people['student']}/leave")->assertNoContent();
    expect($this->getJson('/api/home')->json('students'))->toBe([]);
    $this->postJson("/api/own/children/{$this->world->people['student']}/leave")->assertNotFound();
    expect(DB::table('guardianships')->where('id', $this->tie)->value('state_by'))->toBe($this->guardian);
    // Whoever let go is not invited again by a click on everybody.
    $this->actingAs($this->world->as('coordinator'))
        ->postJson("$this->at/invite", ['ids' => [$this->tie]])
        ->assertJsonPath('said', 'Nobody was invited. Not invited: 1 was disconnected.');
});
