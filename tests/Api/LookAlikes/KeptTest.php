<?php

declare(strict_types=1);

use App\Ledger\WriteGuard;
use App\LookAlikes\Finding;
use App\LookAlikes\Jobs\FindLookAlikes;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;

// Look-alikes are found in the background for whom an entry touched, and kept. What is kept has to be what a look
// through everyone would find, whatever was written in whatever order.

beforeEach(function (): void {
    readyToUndo($this);
    $this->uri = "/api/schools/{$this->world->school}/look-alikes";
    for ($i = 0; $i < 60; $i++) {
        $this->world->person($this->world->school, 'student', 'Child' . chr(97 + ($i % 26)) . " Other$i", [
            'number' => "03$i",
        ]);
    }
    $this->world->lookThrough();
    $this->names = fn(): array => array_map(
        fn(array $c): string => implode(', ', array_column($c['accounts'], 'name')),
        $this->getJson($this->uri)->assertOk()->assertJsonPath('waiting', 0)->json('clusters'),
    );
    $this->rename = fn(string $id, string $family): object => ($this->change)($id, [
        'family_name' => $family,
        'search_name' => 'noor ' . strtolower($family),
    ]);
});

it('keeps what a look through everyone finds, entry by entry, undone and done again', function (): void {
    $a = $this->world->student('Noor Castell');
    $b = $this->world->student('Noor Haddad');
    $this->world->lookThrough();
    expect(($this->names)())->toBe([]);
    $entry = ($this->rename)($b, 'Castell');
    expect(($this->names)())->toBe(['Noor Castell, Noor Castell']);
    $this->postJson("/api/ledger/$entry->id/undo")->assertOk();
    expect(($this->names)())->toBe([]);
    $this->postJson("/api/ledger/$entry->id/redo")->assertOk();
    expect(($this->names)())->toBe(['Noor Castell, Noor Castell']);
    ($this->change)($a, ['state' => 'left']);
    expect(($this->names)())->toBe([]);
    // Nothing of it is left behind: a look through everyone keeps the same.
    $kept = DB::table('look_alikes')->orderBy('left_id')->get()->all();
    $this->world->lookThrough();
    expect(DB::table('look_alikes')->orderBy('left_id')->get()->all())->toEqual($kept);
});

it('finds by a guardian’s address too, when that is what changed', function (): void {
    $guardian = $this->world->person($this->world->school, 'guardian', 'Ann Castell', ['email' => 'a@x.example']);
    $other = $this->world->person($this->world->school, 'guardian', 'Bo Castell', ['email' => 'b@x.example']);
    foreach ([[$guardian, 'Noor Castell'], [$other, 'Nour Castel']] as [$by, $name]) {
        $this->world->insert('guardianships', [
            'student_id' => $this->world->student($name),
            'guardian_id' => $by,
            'state' => 'listed',
        ]);
    }
    $this->world->lookThrough();
    $before = (float) DB::table('look_alikes')->value('probability');
    ($this->change)($other, ['email' => 'a@x.example']);
    expect((float) DB::table('look_alikes')->value('probability'))->toBeGreaterThan($before);
});

it('asks again about two told apart when what is known of them changes, and not before', function (): void {
    $a = $this->world->student('Noor Castell');
    $b = $this->world->student('Noor Castell');
    $this->world->lookThrough();
    expect(($this->names)())->toHaveCount(1);
    $apart = fn() => $this->postJson("$this->uri/$a-$b/apart")->assertOk();
    $told = $apart()->json('id');
    expect(($this->names)())->toBe([]);
    ($this->change)($b, ['grade' => '05']);
    expect(($this->names)())->toBe([]);
    ($this->change)($b, ['birth_date' => '2015-08-03']);
    expect(($this->names)())->toHaveCount(1);
    $again = $apart()->json('id');
    expect(($this->names)())
        ->toBe([])
        ->and(DB::table('known_apart')->count())
        ->toBe(1);
    $this->postJson("/api/ledger/$again/undo")->assertOk();
    expect(($this->names)())->toHaveCount(1);
    $this->postJson("/api/ledger/$told/undo")->assertOk();
    expect(($this->names)())
        ->toHaveCount(1)
        ->and(DB::table('known_apart')->count())
        ->toBe(0);
});

it('shows a cluster without the link that a person has cut', function (): void {
    [$a, $b] = [$this->world->student('Noor Castell'), $this->world->student('Noor Castell')];
    $this->world->student('Noor Castell');
    $this->world->lookThrough();
    $accounts = fn(): array => array_map(
        fn(array $c): int => count($c['accounts']),
        $this->getJson($this->uri)->json('clusters'),
    );
    expect($accounts())->toBe([3]);
    $this->postJson("$this->uri/$a-$b/apart")->assertOk();
    expect($accounts())->toBe([2]);
});

it('finds nothing inside the request where a worker does it', function (): void {
    Queue::fake();
    $this->world->student('Noor Castell');
    $b = $this->world->student('Noor Haddad');
    $this->world->lookThrough();
    ($this->rename)($b, 'Castell');
    Queue::assertPushed(FindLookAlikes::class, 1);
    $this->getJson($this->uri)->assertJsonPath('waiting', 1)->assertJsonCount(0, 'clusters');
    app(Finding::class)->run();
    expect(($this->names)())->toBe(['Noor Castell, Noor Castell']);
    $all = DB::table('people')->where('school_id', $this->world->school)->where('state', 'active')->count();
    $this->postJson("$this->uri/again")
        ->assertOk()
        ->assertJsonPath('waiting', $all);
    Queue::assertPushed(FindLookAlikes::class, 2);
});

it('leaves to be done whom somebody touches while it works', function (): void {
    $a = $this->world->student('Noor Castell');
    $this->world->lookThrough();
    DB::table('look_alike_todo')->insert(['person_id' => $a, 'since' => '2026-11-26 10:00:00.000001']);
    $once = false;
    DB::listen(function (object $query) use ($a, &$once): void {
        if (!$once && str_starts_with($query->sql, 'delete from `look_alikes`')) {
            $once = true;
            DB::table('look_alike_todo')
                ->where('person_id', $a)
                ->update(['since' => '2026-11-26 10:00:00.000002']);
        }
    });
    $looked = 0;
    DB::listen(function (object $query) use (&$looked): void {
        $looked += str_starts_with($query->sql, 'delete from `look_alike_todo`') ? 1 : 0;
    });
    app(Finding::class)->run();
    expect($looked)
        ->toBe(2)
        ->and(DB::table('look_alike_todo')->count())
        ->toBe(0);
});

it('keeps as a random run of entries goes on what a look through everyone would', function (): void {
    $ids = [];
    foreach (['Noor Castell', 'Noor Castel', 'Nour Castell', 'Noor Roig', 'Kai Roig', 'Kay Roig'] as $name) {
        $ids[] = $this->world->student($name);
    }
    $this->world->lookThrough();
    mt_srand(14);
    $kept = fn(): array => DB::table('look_alikes')
        ->orderBy('left_id')
        ->orderBy('right_id')
        ->get(['left_id', 'right_id', 'accounts', 'cluster', 'facts'])
        ->map(fn(object $l): array => (array) $l)
        ->all();
    $entries = [];
    for ($round = 0; $round < 40; $round++) {
        $id = $ids[mt_rand(0, 5)];
        $what = mt_rand(0, 3);
        if ($what === 3 && $entries !== []) {
            $this->postJson('/api/ledger/' . array_pop($entries)->id . '/undo')->assertOk();
        } else {
            $entries[] = ($this->change)(
                $id,
                [
                    ['family_name' => ['Castell', 'Roig', 'Ek'][mt_rand(0, 2)]],
                    ['birth_date' => ['2015-08-03', '2015-03-08', null][mt_rand(0, 2)]],
                    ['state' => ['active', 'left'][mt_rand(0, 1)]],
                ][min(2, $what)],
            );
        }
    }
    $after = $kept();
    WriteGuard::within(fn() => DB::table('look_alikes')->delete());
    $this->world->lookThrough();
    expect($after)->toEqual($kept());
});
