<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

it('keeps settings only as they were looked at', function (): void {
    $world = World::make();
    $uri = "/api/schools/$world->school/settings";
    $this->actingAs($world->as('coordinator'));
    $seen = $this->getJson($uri)->assertOk()->json('version');
    $this->postJson($uri, ['keep_lists_days' => 40, 'version' => $seen])
        ->assertOk()
        ->assertJsonPath('keepListsDays', 40);
    $now = $this->getJson($uri)->json('version');
    expect($now)->not->toBe($seen);
    // A second window that still shows the first: nothing of it is kept.
    $before = World::checksum();
    $this->postJson($uri, ['name' => 'Lanternfield First', 'version' => $seen])
        ->assertStatus(409)
        ->assertJsonPath('changed', ['the settings'])
        ->assertJsonPath(
            'detail',
            'Somebody has changed the settings since you looked at them. Nothing was kept; look again, then keep yours.',
        );
    expect(World::checksum())->toBe($before);
    $this->postJson($uri, ['name' => 'Lanternfield First', 'version' => $now])->assertOk();
    // A command or a script that has looked at nothing says no version, and means what it says.
    $this->postJson($uri, ['keep_lists_days' => 41])->assertOk();
    expect(DB::table('schools')->where('id', $world->school)->value('name'))->toBe('Lanternfield First');
    $this->postJson($uri, ['keep_lists_days' => 42, 'version' => 'new'])->assertStatus(422);
});
