<?php

declare(strict_types=1);

use App\Models\OutgoingMessage;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

it('leaves out whose mail came back, and does not remind them, until somebody has looked', function (): void {
    $this->travelTo(now()->setTime(8, 0));
    $world = World::make();
    $layla = $world->person($world->school, 'guardian', 'Layla Haddad', ['email' => 'layla@shoremail.example']);
    $tie = fn(string $child): string => $world->insert('guardianships', [
        'student_id' => $world->student($child, $world->section),
        'guardian_id' => $layla,
        'state' => 'listed',
    ]);
    [$first, $second] = [$tie('Noor Haddad'), $tie('Sami Haddad')];
    $office = fn(string $path, array $ids) => $this->actingAs($world->as('coordinator'))->postJson(
        "/api/schools/$world->school/guardians$path",
        ['ids' => $ids],
    );
    $office('/invite', [$first])->assertOk();
    DB::table('bounced_addresses')->insert([
        'address' => 'layla@shoremail.example',
        'message_id' => OutgoingMessage::query()->value('id'),
        'said' => 'No such mailbox.',
        'bounced_at' => now(),
    ]);
    $office('/invite/plan', [$second])
        ->assertJsonPath('guardians', 0)
        ->assertJsonPath('leftOut', 'Not invited: 1 has an address that mail came back from (look in the Mailroom).');
    $back = DB::table('bounced_addresses')->get()->map(fn($row): array => (array) $row)->all();
    DB::table('bounced_addresses')->delete();
    $office('/invite/plan', [$second])->assertJsonPath('guardians', 1);
    DB::table('bounced_addresses')->insert($back);
    $this->travel(8)->days();
    Artisan::call('vantrel:remind-guardians', ['--now' => true]);
    expect(OutgoingMessage::query()->count())->toBe(1);
});
