<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->uri = "/api/schools/{$this->world->school}/views";
    $this->colleague = $this->world->staff($this->world->school, 'Jorun Vale');
    $this->world->coordinates($this->colleague, $this->world->school);
    $this->world->people['colleague'] = $this->colleague;
    $this->by = fn(string $who) => $this->actingAs($this->world->as($who));
    $this->names = fn(string $who): array => array_column(
        ($this->by)($who)->getJson($this->uri)->assertOk()->json('views'),
        'name',
    );
});

it('keeps views for oneself or for the school, one of a name, and forgets them', function (): void {
    $keep = fn(string $who, string $name, string $query, bool $shared) => ($this->by)($who)
        ->postJson($this->uri, ['name' => $name, 'query' => $query, 'shared' => $shared])
        ->assertOk();
    $keep('coordinator', 'Third grade', 'kind=student&grade=03', false);
    $keep('coordinator', ' Third grade ', 'kind=student&grade=03&sort=grade', false);
    $keep('coordinator', 'No cards', 'problem=no_card%2Cnever_signed_in', true);
    $keep('colleague', 'Third grade', 'kind=student&grade=03', false);
    expect(($this->names)('coordinator'))
        ->toBe(['No cards', 'Third grade'])
        ->and(($this->names)('colleague'))
        ->toBe(['No cards', 'Third grade'])
        ->and(DB::table('roll_views')->where('name', 'Third grade')->pluck('query')->sort()->values()->all())
        ->toBe(['kind=student&grade=03', 'kind=student&grade=03&sort=grade']);
    $own = DB::table('roll_views')->where('person_id', $this->world->people['coordinator'])->value('id');
    // Another's own view is not one's to forget.
    ($this->by)('colleague')
        ->deleteJson("$this->uri/$own")
        ->assertNotFound();
    expect(($this->names)('coordinator'))->toContain('Third grade');
    ($this->by)('coordinator')
        ->deleteJson("$this->uri/$own")
        ->assertOk()
        ->assertJsonCount(1, 'views');
});

it('refuses a view without a name, of something else than filters, and one too many', function (): void {
    $as = ($this->by)('coordinator');
    $as->postJson($this->uri, ['name' => ' ', 'query' => 'grade=03'])->assertStatus(422);
    foreach (['javascript:alert(1)', '"><b>', '//evil.example', ''] as $query) {
        $as->postJson($this->uri, ['name' => 'X', 'query' => $query])->assertStatus(422);
    }
    for ($i = 0; $i < 30; $i++) {
        $as->postJson($this->uri, ['name' => "View $i", 'query' => 'grade=03'])->assertOk();
    }
    $as->postJson($this->uri, ['name' => 'One more', 'query' => 'grade=03'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'There are 30 views already. Forget one first.');
});
