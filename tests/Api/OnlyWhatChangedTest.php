<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

it('sends a section again only where something of it has changed', function (): void {
    $world = World::make();
    $this->actingAs($world->as('coordinator'));
    $uri = "/api/sections/{$world->section}";
    $first = $this->getJson($uri)->assertOk();
    $tag = (string) $first->headers->get('ETag');
    expect($tag)->toMatch('/^"[0-9a-f]{32}"$/');
    $again = $this->getJson($uri, ['If-None-Match' => $tag])->assertStatus(304);
    expect($again->getContent())->toBe('')->and((string) $again->headers->get('Cache-Control'))->toContain('no-store');
    DB::table('sections')
        ->where('id', $world->section)
        ->update(['name' => '3 Plover by the window']);
    $this->getJson($uri, ['If-None-Match' => $tag])
        ->assertOk()
        ->assertJsonPath('name', '3 Plover by the window');
});

it('says nothing of what somebody may no longer see, whatever they have of it', function (): void {
    $world = World::make();
    $this->actingAs($world->as('coordinator'));
    $uri = "/api/sections/{$world->section}";
    $tag = (string) $this->getJson($uri)->headers->get('ETag');
    $this->actingAs($world->as('student'));
    $this->getJson($uri, ['If-None-Match' => $tag])->assertForbidden();
});
