<?php

declare(strict_types=1);

use App\Mailroom\Jobs\HandOver;
use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\DB;
use Tests\Support\MailStandIn;
use Tests\Support\World;
use Vantrel\Core\Mailroom\MessageState;

/** Letters in a hurry: sent twice, to somebody merged or gone since, to an address put right since. */
beforeEach(function (): void {
    $this->travelTo('2026-11-25 15:00:00');
    $this->world = World::make();
    DB::table('schools')->update(['time_zone' => 'America/New_York']);
    DB::table('guardianships')->delete();
    $this->gateway = MailStandIn::start();
    // Handed over when a test says so, as a worker would.
    config(['queue.default' => 'null']);
    $this->guardian = function (string $name, string $child, array $more = []): string {
        $student = $this->world->student("$child Moss", $this->world->section);
        $id = $this->world->person($this->world->school, 'guardian', "$name Moss", [
            'email' => strtolower($name) . '@shoremail.example',
            ...$more,
        ]);
        $this->world->insert('guardianships', ['student_id' => $student, 'guardian_id' => $id, 'state' => 'connected']);

        return $id;
    };
    $this->all = "/api/schools/{$this->world->school}/mailings";
    $this->letter = ['readers' => 'guardians', 'subject' => 'Trip', 'body' => 'Dear {{name}}, we go on Friday.'];
    $this->seen = fn(array $letter): string => $this->postJson("$this->all/plan", $letter)->json('seen');
    $this->to = fn(): array => array_map(
        fn(string $line): string => explode(' ', $line)[2],
        $this->gateway->deliveries(),
    );
    $this->actingAs($this->world->as('coordinator'));
});
afterEach(fn() => $this->gateway->end());

it('goes to the same people once, though whoever sent it got no answer and sends it again', function (): void {
    ($this->guardian)('Layla', 'Ada');
    $letter = [...$this->letter, 'seen' => ($this->seen)($this->letter)];
    $this->postJson($this->all, $letter)->assertOk();
    $this->postJson($this->all, $letter)
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_contains($said, 'at 10:00. Nobody gets it twice'));
    HandOver::dispatchSync();
    $this->postJson($this->all, $letter)->assertStatus(422);
    expect(OutgoingMessage::query()->count())
        ->toBe(1)
        ->and(($this->to)())
        ->toBe(['layla@shoremail.example']);
    // In other words it is another letter, and so is that of another writer, and that of another hour.
    $other = [...$this->letter, 'body' => 'Dear {{name}}, we go on Friday!'];
    $this->postJson($this->all, [...$other, 'seen' => ($this->seen)($other)])->assertOk();
    $this->actingAs($this->world->as('lead'))
        ->postJson("/api/sections/{$this->world->section}/letter", [
            ...$this->letter,
            'seen' => $this->postJson("/api/sections/{$this->world->section}/letter/plan", $this->letter)->json('seen'),
        ])
        ->assertOk();
    $this->travelTo(now()->addMinutes(61));
    $this->actingAs($this->world->as('coordinator'))->postJson($this->all, $letter)->assertOk();
});

it('may be sent as it was, once the one before has been stopped', function (): void {
    ($this->guardian)('Layla', 'Ada');
    $letter = [...$this->letter, 'at' => '2026-11-26T09:00'];
    $letter['seen'] = ($this->seen)($letter);
    $this->postJson($this->all, $letter)->assertOk();
    $this->postJson($this->all, [...$letter, 'at' => '2026-11-26T10:00'])->assertStatus(422);
    $id = DB::table('mailings')->value('id');
    $this->postJson("$this->all/$id/stop")->assertOk();
    $this->postJson($this->all, [...$letter, 'at' => '2026-11-26T10:00'])->assertOk();
});

it('reaches whom its reader, or the child, was merged into, and nobody who is kept from that child', function (
    bool $kept,
): void {
    [$old, $new] = [($this->guardian)('Layla', 'Ada'), ($this->guardian)('Laila', 'Kit', ['email' => null])];
    $tie = fn(string $guardian) => DB::table('guardianships')->where('guardian_id', $guardian);
    $letter = [...$this->letter, 'seen' => ($this->seen)($this->letter)];
    $this->postJson($this->all, $letter)->assertOk();
    // As a merge leaves it: of the children, and of the guardians.
    $children = [$tie($old)->value('student_id'), $tie($new)->value('student_id')];
    $tie($old)->delete();
    $tie($new)->update(['restriction' => $kept ? 'By court order' : null]);
    foreach ([[$old, $new], $children] as [$from, $into]) {
        DB::table('people')
            ->where('id', $from)
            ->update(['state' => 'merged', 'merged_into' => $into]);
    }
    HandOver::dispatchSync();
    expect(($this->to)())->toBe($kept ? [] : ['layla@shoremail.example']);
})->with(['free' => [false], 'kept away' => [true]]);

it('goes to nobody who has left since', function (): void {
    $letter = [...$this->letter, 'readers' => 'staff'];
    DB::table('people')
        ->whereIn('id', [$this->world->people['lead'], $this->world->people['assistant']])
        ->update(['email' => DB::raw("concat(lower(given_name), '@lanternfield.example')")]);
    $letter['seen'] = ($this->seen)($letter);
    $this->postJson($this->all, $letter)->assertOk();
    $own = fn(string $who): MessageState => OutgoingMessage::query()
        ->where('person_id', $this->world->people[$who])
        ->firstOrFail()->state;
    DB::table('people')
        ->where('id', $this->world->people['lead'])
        ->update(['state' => 'left']);
    HandOver::dispatchSync();
    expect([$own('lead'), $own('assistant')])->toBe([MessageState::Stopped, MessageState::Sent]);
});

it('goes to the address put right since, where it is sent again', function (bool $merged): void {
    $id = ($this->guardian)('Refused', 'Ada');
    $this->postJson($this->all, [...$this->letter, 'seen' => ($this->seen)($this->letter)])->assertOk();
    HandOver::dispatchSync();
    $message = OutgoingMessage::query()->firstOrFail();
    expect($message->state)->toBe(MessageState::Refused);
    $right = ['email' => 'layla.moss@shoremail.example'];
    $survivor = $this->world->person($this->world->school, 'guardian', 'Layla Moss', $merged ? $right : []);
    if ($merged) {
        DB::table('guardianships')->update(['guardian_id' => $survivor]);
    }
    DB::table('people')
        ->where('id', $id)
        ->update($merged ? ['state' => 'merged', 'merged_into' => $survivor] : $right);
    $this->postJson("/api/messages/$message->id/again")
        ->assertOk()
        ->assertJsonPath('to', 'layla.moss@shoremail.example');
    HandOver::dispatchSync();
    expect(($this->to)())->toBe(['layla.moss@shoremail.example']);
})->with(['in the same record' => [false], 'in the one they were merged into' => [true]]);
