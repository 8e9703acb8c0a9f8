<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// Several accounts of one person side by side, many people at once, grown-ups, and what two who work at the same time
// see of each other.

beforeEach(function (): void {
    readyToUndo($this);
    $this->uri = "/api/schools/{$this->world->school}/look-alikes";
    for ($i = 0; $i < 60; $i++) {
        $this->world->person($this->world->school, 'student', 'Child' . chr(97 + ($i % 26)) . " Other$i", [
            'number' => "03$i",
        ]);
    }
    $this->noors = array_map(fn(array $more): string => $this->world->student('Noor Castell', null, $more), [
        ['birth_date' => '2015-08-03', 'number' => '041001'],
        ['birth_date' => '2015-08-03'],
        ['birth_date' => '2015-08-03', 'email' => 'noor@shoremail.example'],
    ]);
    $this->world->lookThrough();
    $this->clusters = fn(): array => $this->getJson($this->uri)->assertOk()->json('clusters');
});

it('holds a cluster side by side, merges it whole, and gives it back byte for byte', function (): void {
    $before = World::checksum();
    $id = ($this->clusters)()[0]['id'];
    expect(explode('-', $id))->toBe($this->noors);
    $cluster = $this->getJson("$this->uri/$id")->assertOk();
    expect($cluster->json('evidence'))
        ->toHaveCount(3)
        ->and($cluster->json('why'))
        ->toBe('has a number')
        ->and(array_column($cluster->json('accounts'), 'survives'))
        ->toBe([true, false, false])
        ->and(collect($cluster->json('fields'))->firstWhere('column', 'email'))
        ->toMatchArray(['stays' => 'noor@shoremail.example', 'why' => 'all there is']);
    $merged = $this->postJson("$this->uri/$id/merge", [
        'fingerprint' => $cluster->json('plan.fingerprint'),
        'picks' => [],
    ])->assertOk();
    expect(($this->clusters)())
        ->toBe([])
        ->and(DB::table('people')->where('merged_into', $this->noors[0])->count())
        ->toBe(2)
        ->and(DB::table('sign_ins')->where('person_id', $this->noors[0])->count())
        ->toBe(3);
    $this->postJson("/api/ledger/{$merged->json('id')}/undo")
        ->assertOk()
        ->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
});

it('lets one of them go as somebody else, and asks about the others still', function (): void {
    $id = implode('-', $this->noors);
    $this->postJson("$this->uri/$id/apart", ['who' => $this->noors[2]])->assertOk();
    expect(array_column(($this->clusters)(), 'id'))
        ->toBe(["{$this->noors[0]}-{$this->noors[1]}"])
        ->and(DB::table('known_apart')->count())
        ->toBe(2);
    $this->postJson("$this->uri/$id/apart")->assertOk();
    expect(($this->clusters)())
        ->toBe([])
        ->and(DB::table('known_apart')->count())
        ->toBe(3);
    $this->postJson("$this->uri/$id/apart", ['who' => $this->world->people['student']])->assertNotFound();
});

it('merges many people at once, each by an entry that is undone by itself', function (): void {
    $kais = array_map(
        fn(string $born): string => $this->world->student('Kai Roig', null, ['birth_date' => '2014-02-01']),
        ['a', 'b'],
    );
    $this->world->lookThrough();
    $before = World::checksum();
    $clear = array_filter(($this->clusters)(), fn(array $c): bool => $c['clear']);
    expect($clear)->toHaveCount(2);
    $wish = ['clusters' => array_column($clear, 'id')];
    $plan = $this->postJson("$this->uri/many/plan", $wish)->assertOk();
    expect($plan->json('sentence'))
        ->toStartWith('3 accounts go into another of the same person.')
        ->and($plan->json('rows'))
        ->toHaveCount(2)
        ->and(World::checksum())
        ->toBe($before);
    $this->postJson("$this->uri/many", [
        ...$wish,
        'fingerprint' => str_repeat('0', 64),
        'seed' => $plan->json('seed'),
    ])->assertStatus(409);
    expect(World::checksum())->toBe($before);
    $seen = ['fingerprint' => $plan->json('fingerprint'), 'seed' => $plan->json('seed')];
    $this->postJson("$this->uri/many", [...$wish, ...$seen])->assertOk();
    $entries = DB::table('ledger_entries')->where('action', 'merge')->orderBy('seq')->pluck('id');
    expect($entries)->toHaveCount(2)->and(($this->clusters)())->toBe([]);
    // Once more is not twice.
    $this->postJson("$this->uri/many", [...$wish, ...$seen])->assertStatus(422);
    foreach ($entries as $entry) {
        $this->postJson("/api/ledger/$entry/undo")
            ->assertOk()
            ->assertJsonPath('kept', []);
    }
    expect(World::checksum())->toBe($before);
});

it('merges nothing where one of many cannot be', function (): void {
    $before = World::checksum();
    $wish = fn(string ...$clusters): array => ['clusters' => $clusters];
    [$a, $b, $c] = $this->noors;
    $elsewhere = DB::table('people')->where('school_id', '!=', $this->world->school)->value('id');
    $this->postJson("$this->uri/many/plan", $wish("$a-$b", "$b-$c"))
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Noor Castell is in two of these. Merge them one after the other.');
    $this->postJson("$this->uri/many/plan", $wish("$a-$b", "$c-$elsewhere"))->assertNotFound();
    $this->postJson("$this->uri/many/plan", $wish("$a-{$this->world->people['guardian']}"))->assertStatus(422);
    $this->postJson("$this->uri/many/plan", $wish('x'))->assertStatus(422);
    $this->postJson("$this->uri/many/plan", $wish())->assertStatus(422);
    expect(World::checksum())->toBe($before);
});

it('says to the second of two who merge at once that it has been done', function (): void {
    [$a, $b, $c] = $this->noors;
    $mine = $this->getJson("$this->uri/$a-$b-$c")->assertOk();
    $theirs = $this->getJson("$this->uri/$b-$c")->assertOk();
    $this->postJson("$this->uri/$b-$c/merge", ['fingerprint' => $theirs->json('plan.fingerprint')])->assertOk();
    $after = World::checksum();
    $this->postJson("$this->uri/$a-$b-$c/merge", ['fingerprint' => $mine->json('plan.fingerprint')])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Noor Castell has been merged already.');
    expect(World::checksum())->toBe($after);
});

it('undoes a chain of merges in the orders that the facts allow', function (): void {
    [$a, $b, $c] = $this->noors;
    $before = World::checksum();
    $merge = function (string $pair): array {
        $print = $this->getJson("$this->uri/$pair")
            ->assertOk()
            ->json('plan.fingerprint');

        return $this->postJson("$this->uri/$pair/merge", ['fingerprint' => $print])
            ->assertOk()
            ->json();
    };
    $first = $merge("$b-$c");
    $into = DB::table('people')->where('id', $b)->value('state') === 'merged' ? $c : $b;
    $second = $merge("$a-$into");
    // The first alone cannot go back while its survivor is merged; with the second it can.
    $this->postJson("/api/ledger/{$first['id']}/undo")->assertStatus(422);
    $outlook = $this->getJson("/api/ledger/{$first['id']}/undo?together=true")->assertOk();
    expect(array_column($outlook->json('first'), 'id'))->toBe([$second['id']]);
    $this->postJson("/api/ledger/{$first['id']}/undo", ['first' => [$second['id']]])->assertOk();
    expect(World::checksum())->toBe($before);
    $this->postJson("/api/ledger/{$first['id']}/redo")->assertOk();
    $this->postJson("/api/ledger/{$first['id']}/undo")->assertOk();
    expect(World::checksum())->toBe($before);
});

it('finds a guardian who has two accounts by child, telephone or address, and no couple', function (): void {
    $school = $this->world->school;
    $guardian = fn(string $name, array $more): string => $this->world->person($school, 'guardian', $name, $more);
    $of = fn(string $guardian, string $student) => $this->world->insert('guardianships', [
        'student_id' => $student,
        'guardian_id' => $guardian,
        'state' => 'listed',
    ]);
    for ($i = 0; $i < 60; $i++) {
        $letter = fn(int $n): string => chr(97 + ($n % 26));
        $name = ucfirst("{$letter($i)}el{$letter($i * 7)}a") . ' ' . ucfirst("{$letter($i * 5)}or{$letter($i * 11)}n");
        $guardian($name, ['email' => "p$i@shoremail.example"]);
    }
    $ann = $guardian('Ann Castell', ['email' => 'castell@shoremail.example', 'phone' => '+12025550101']);
    $bo = $guardian('Bo Castell', ['email' => 'castell@shoremail.example', 'phone' => '+12025550101']);
    $again = $guardian('Ann Castell', ['email' => 'ann@home.example', 'phone' => '+12025550101']);
    $namesake = $guardian('Ann Castell', ['email' => 'ac@elsewhere.example', 'phone' => '+12025550188']);
    foreach ([$ann, $bo, $again] as $parent) {
        $of($parent, $this->noors[0]);
    }
    $of($namesake, $this->world->people['student']);
    $this->world->lookThrough();
    $guardians = array_values(array_filter(($this->clusters)(), fn(array $c): bool => $c['kind'] === 'guardian'));
    expect(array_column($guardians, 'id'))->toBe(["$ann-$again"]);
    $detail = $this->getJson("$this->uri/$ann-$again")->assertOk();
    expect($detail->json('accounts.0.relatives'))
        ->toBe(['Noor Castell'])
        ->and(array_column($detail->json('evidence.0.evidence'), 'field'))
        ->toContain('child or phone')
        ->not->toContain('guardian contact');
});

it('gives nobody a colleague’s other schools, and keeps the role that may more', function (): void {
    $school = $this->world->school;
    $petra = $this->world->people['lead'];
    $again = $this->world->person($school, 'staff', 'Petra Okonjo');
    $this->world->enroll($this->world->section, $again, 'assistant');
    $pair = "$petra-$again";
    $print = $this->getJson("$this->uri/$pair")
        ->assertOk()
        ->json('plan.fingerprint');
    $entry = $this->postJson("$this->uri/$pair/merge", ['fingerprint' => $print])
        ->assertOk()
        ->json('id');
    $open = DB::table('enrollments')
        ->whereIn('person_id', [$petra, $again])
        ->where('section_id', $this->world->section)
        ->whereNull('ends_on')
        ->get();
    expect($open)->toHaveCount(1)->and($open[0]->role)->toBe('lead');
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    $this->world->coordinates($again, $this->world->otherSchool);
    $this->getJson("$this->uri/$pair")
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Petra Okonjo coordinates another school too. Ask a coordinator of that school.');
});
