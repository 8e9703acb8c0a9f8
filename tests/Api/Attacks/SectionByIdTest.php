<?php

declare(strict_types=1);

use Tests\Support\World;

it('lets no teacher reach another’s section by id, in whatever part of a request', function (): void {
    $world = World::make();
    $mine = $world->as('other teacher');
    $theirs = $world->people['student'];
    $own = $world->otherSection;
    // Through the address of the own section: people, requests and targets of the other one.
    $asking = $world->asking();
    $this->actingAs($mine);
    $this->postJson("/api/sections/$own/place/plan", ['kind' => 'remove', 'people' => [$theirs]])->assertStatus(422);
    $this->postJson("/api/sections/$own/place/plan", [
        'kind' => 'also',
        'people' => [$theirs],
        'to' => $own,
    ])->assertStatus(422);
    $ours = $world->student('Uma Rao', $own);
    $this->postJson("/api/sections/$own/place/plan", [
        'kind' => 'move',
        'people' => [$ours],
        'to' => $world->section,
    ])->assertStatus(403);
    $this->postJson("/api/sections/$own/requests/$asking/approve")->assertStatus(404);
    $owner = ['given_name' => 'A', 'family_name' => 'B'];
    $this->postJson("/api/sections/$own/reserves/$theirs", $owner)->assertStatus(404);
    $this->deleteJson("/api/sections/$own/people/$theirs/pictures")->assertStatus(404);
    $this->deleteJson("/api/sections/$own/staff/{$world->people['assistant']}")->assertStatus(404);
    $this->postJson("/api/sections/$own/as-student", ['person' => $theirs])->assertStatus(422);
    $this->postJson("/api/sections/$own/cards", [
        'person_ids' => [$theirs],
        'layout' => 'cards-a4',
        'order' => 'reading',
    ])->assertStatus(422);
    // A request of the own section cannot be answered as a student whom the matcher has not offered.
    $own2 = $world->insert('join_requests', [
        'section_id' => $own,
        'state' => 'waiting',
        'cause' => 'newcomer',
        'given_name' => 'Xanthe',
        'family_name' => 'Oyelaran',
        'made_at' => now(),
    ]);
    $this->postJson("/api/sections/$own/requests/$own2/approve", ['as' => $theirs])->assertStatus(404);
});
