<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(fn() => readyForWork($this));

it('counts what waits on the Desk', function (): void {
    $this->world->student('Noor Haddad');
    $this->world->section($this->world->school, 'Art 3');
    $desk = $this->as->getJson("/api/schools/{$this->world->school}/desk")->assertOk();
    $counts = array_column($desk->json('loops'), 'count', 'key');
    // One is called one, and several several.
    expect(array_column($desk->json('loops'), 'title', 'key'))->toMatchArray([
        'unplaced' => 'Unplaced student',
        'no_lead' => 'Section without a lead',
        'no_card' => 'Students without a card',
        'never_signed_in' => 'Accounts never opened',
    ]);
    expect($counts)
        ->toBe(['unplaced' => 1, 'no_lead' => 1, 'no_card' => 2, 'never_signed_in' => 2, 'no_guardian' => 1])
        ->and(
            $this->getJson("/api/schools/{$this->world->school}/desk/counts")
                ->assertOk()
                ->json(),
        )
        ->toBe(['students' => 2, 'guardians' => 1, 'staff' => 7, 'sections' => 3]);
});

it('finds people by any part of a name, without accents, by number and by address', function (
    string $q,
    array $names,
): void {
    $this->world->student('Mateusz Żuławski', null, ['number' => '020777']);
    $this->world->student('Noor Haddad', null, ['email' => 'noor.h@school.example']);
    $this->world->student('Saoirse O’Dwyer');
    $this->world->lookThrough();
    $found = $this->as
        ->getJson("/api/schools/{$this->world->school}/people?kind=student&q=" . urlencode($q))
        ->assertOk()
        ->json('people');
    expect(array_column($found, 'name'))->toBe($names);
})->with([
    ['zulaw', ['Mateusz Żuławski']],
    ['żuł mat', ['Mateusz Żuławski']],
    ['odwy', ['Saoirse O’Dwyer']],
    ["o'dwyer", ['Saoirse O’Dwyer']],
    ['0207', ['Mateusz Żuławski']],
    ['noor.h@', ['Noor Haddad']],
    ['%', []],
    ["' OR 1=1", []],
    ['lawski', []],
]);

it('pages through people without losing or repeating any', function (): void {
    for ($i = 0; $i < 450; $i++) {
        $rows[] = [
            'id' => sprintf('01K3CNQ000%016d', $i),
            'version' => 0,
            'school_id' => $this->world->school,
            'kind' => 'student',
            'given_name' => "G$i",
            'family_name' => 'F' . $i % 7,
            'search_name' => "g$i f",
            'state' => 'active',
        ];
    }
    DB::table('people')->insert($rows);
    $seen = [];
    $after = '';
    do {
        $page = $this->as
            ->getJson("/api/schools/{$this->world->school}/people?kind=student&after=" . urlencode($after))
            ->assertOk();
        $seen = [...$seen, ...array_column($page->json('people'), 'id')];
        $after = $page->json('next') ?? '';
    } while ($after !== '');
    expect($seen)->toHaveCount(451)->and(array_unique($seen))->toHaveCount(451)->and($page->json('total'))->toBe(451);
});

it('filters by the problems a school has with accounts', function (): void {
    $unplaced = $this->world->student('Noor Haddad');
    DB::table('sign_ins')
        ->where('person_id', $unplaced)
        ->update(['last_signed_in_at' => now()]);
    $this->world->badge($this->world->people['student'], 'x');
    $names = fn(string $problem): array => array_column(
        $this->as
            ->getJson("/api/schools/{$this->world->school}/people?kind=student&problem=$problem")
            ->assertOk()
            ->json('people'),
        'name',
    );
    expect($names('unplaced'))
        ->toBe(['Noor Haddad'])
        ->and($names('never_signed_in'))
        ->toBe(['Wilhelmina Seabright'])
        ->and($names('no_guardian'))
        ->toBe(['Noor Haddad'])
        ->and($names('no_card'))
        ->toBe(['Noor Haddad']);
});

it('shows a person with sections, guardians and user names', function (): void {
    $this->as
        ->getJson('/api/people/' . $this->world->people['student'])
        ->assertOk()
        ->assertJsonPath('enrollments.0.section', '3 Heron')
        ->assertJsonPath('relatives.0.name', 'Hélène Marchetti')
        ->assertJsonPath('userNames.0.userName', 'wilhelmina.seabright')
        ->assertJsonPath('userNames.0.secret', 'no card yet');
});

it('makes a section with a code, and no second of the name', function (): void {
    $made = $this->as
        ->postJson("/api/schools/{$this->world->school}/sections", [
            'name' => ' Art  3 ',
            'kind' => 'class',
            'grade' => '3',
        ])
        ->assertOk();
    expect($made->json('name'))
        ->toBe('Art 3')
        ->and($made->json('hasCode'))
        ->toBeTrue()
        ->and($made->json('grade'))
        ->toBe('3');
    $this->as
        ->postJson("/api/schools/{$this->world->school}/sections", ['name' => 'ART 3', 'kind' => 'class'])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['name']]);
    $this->as
        ->postJson("/api/schools/{$this->world->school}/sections", [
            'name' => 'Art 4',
            'kind' => 'class',
            'grade' => 'x',
        ])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['grade']]);
});

it('shows a teacher the own sections only', function (): void {
    $this->actingAs($this->world->as('other teacher'))
        ->getJson("/api/schools/{$this->world->school}/sections")
        ->assertOk()
        ->assertJsonCount(1, 'sections')
        ->assertJsonPath('sections.0.name', '3 Plover');
});

it('archives a section: code dead, invitations withdrawn, roster and cards there; and undoes it', function (): void {
    $section = $this->world->section;
    $this->as
        ->postJson("/api/sections/$section/invitations", [
            'email' => 'n.q@lanternfield.example',
            'role' => 'co_teacher',
        ])
        ->assertOk();
    $before = World::checksum();
    $plan = $this->as->getJson("/api/sections/$section/archive")->assertOk();
    $this->as
        ->postJson("/api/sections/$section/archive", [
            'seed' => $plan->json('seed'),
            'fingerprint' => str_repeat('0', 64),
        ])
        ->assertStatus(409);
    $this->travel(90)->seconds();
    $archived = $this->as
        ->postJson("/api/sections/$section/archive", [
            'seed' => $plan->json('seed'),
            'fingerprint' => $plan->json('fingerprint'),
        ])
        ->assertOk();
    expect($archived->json('state'))
        ->toBe('archived')
        ->and($archived->json('roster'))
        ->toHaveCount(1)
        ->and($archived->json('powers'))
        ->toBe(['see_roster', 'print_cards'])
        ->and($archived->json('invitations.0.state'))
        ->toBe('withdrawn');
    $this->as->postJson("/api/sections/$section/code")->assertStatus(422);
    $this->as
        ->postJson("/api/sections/$section/invitations", [
            'email' => 'x.y@lanternfield.example',
            'role' => 'co_teacher',
        ])
        ->assertStatus(422);
    $this->actingAs($this->world->as('student'))
        ->postJson('/api/join', ['code' => $this->world->code])
        ->assertStatus(422);
    // Who taught it reads the roster; cards that work are the coordinators'.
    $this->actingAs($this->world->as('lead'))
        ->getJson("/api/sections/$section")
        ->assertOk()
        ->assertJsonPath('powers', ['see_roster']);
    $this->postJson("/api/sections/$section/cards", ['layout' => 'cards-a4', 'order' => 'reading'])->assertStatus(403);
    $pdf = $this->actingAs($this->world->as('coordinator'))
        ->postJson("/api/sections/$section/cards", ['layout' => 'cards-a4', 'order' => 'reading'])
        ->assertOk();
    $file = $this->getJson("/api/prints/{$pdf->json('id')}/file")->assertOk();
    expect(substr((string) $file->getContent(), 0, 5))->toBe('%PDF-');
    // Undone newest first: the cards, then the archiving.
    foreach (
        DB::table('ledger_entries')
            ->whereIn('action', ['cards', 'archive'])
            ->orderByDesc('seq')
            ->pluck('id')
        as $entry
    ) {
        $this->actingAs($this->world->as('coordinator'))
            ->postJson("/api/ledger/$entry/undo")
            ->assertOk()
            ->assertJsonPath('kept', []);
    }
    expect(World::checksum())->toBe($before);
});
