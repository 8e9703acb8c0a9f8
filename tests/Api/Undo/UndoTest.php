<?php

declare(strict_types=1);

use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;

// Undo out of order, undo taken back, and plans that were overtaken.

beforeEach(fn() => readyToUndo($this));

it('keeps with a student who stays what a student needs: user name, section, guardian', function (): void {
    $a = ($this->list)(
        "Name,Birth date,Student number,Grade,Section,Guardian,Guardian email\n" .
            "Corin Quill,2017-03-03,040001,3,3 Heron,Ann Quill,ann@shoremail.example\n" .
            "Nova Rook,2017-03-04,040002,3,3 Heron,Bo Rook,bo@shoremail.example\n",
    );
    $before = World::checksum();
    $b = ($this->list)("Name,Birth date,Student number,Grade\nCorin Quill,2017-03-03,040001,2\n");
    $corin = DB::table('people')->where('number', '040001')->value('id');
    $look = ($this->outlook)($a);
    expect($look['blocked'])
        ->toBeFalse()
        ->and($look['stays'])
        ->toContain('Corin Quill: changed since')
        ->and(array_column($look['first'], 'id'))
        ->toBe([$b])
        ->and($look['goesBack'] + $look['staysCount'])
        ->toBe((int) DB::table('ledger_entries')->where('id', $a)->value('changes_count'));
    ($this->undo)($a)->assertOk();
    expect(DB::table('people')->where('number', '040002')->exists())
        ->toBeFalse()
        ->and(DB::table('sign_ins')->where('person_id', $corin)->count())
        ->toBe(1)
        ->and(DB::table('enrollments')->where('person_id', $corin)->count())
        ->toBe(1)
        ->and(
            DB::table('guardianships as g')
                ->join('people as p', 'p.id', '=', 'g.guardian_id')
                ->where('g.student_id', $corin)
                ->pluck('p.given_name')
                ->all(),
        )
        ->toBe(['Ann']);
    // Brought in again, the list mends what went.
    $this->postJson("/api/ledger/$a/redo")->assertOk();
    ($this->undo)($b)->assertOk()->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
});

it('undoes later entries with it where that is said, all or none, and everything goes back', function (): void {
    $before = World::checksum();
    $a = ($this->list)("Name,Birth date,Student number,Grade,Section\nCorin Quill,2017-03-03,040001,3,3 Heron\n");
    $b = ($this->list)("Name,Birth date,Student number,Grade\nCorin Quill,2017-03-03,040001,2\n");
    $c = ($this->list)("Name,Birth date,Student number,Grade\nCorin Quill,2017-03-03,040001,1\n");
    $first = array_column(($this->outlook)($a)['first'], 'id');
    expect($first)->toBe([$c, $b]);
    // An entry of another school is not undone along the way.
    $foreign = $this->ledger->apply(
        new Plan('Elsewhere', 'Somewhere else.', []),
        $this->world->otherSchool,
        null,
        Action::Settings,
    );
    ($this->undo)($a, [...$first, $foreign->id])->assertStatus(403);
    expect(DB::table('ledger_entries')->whereNotNull('undone_at')->count())->toBe(0);
    ($this->undo)($a, $first)->assertOk()->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
});

it('undoes what was looked at, or nothing', function (): void {
    $a = ($this->list)("Name,Birth date,Student number,Grade,Section\nCorin Quill,2017-03-03,040001,3,3 Heron\n");
    $look = ($this->outlook)($a);
    $b = ($this->list)("Name,Birth date,Student number,Grade\nCorin Quill,2017-03-03,040001,2\n");
    $now = World::checksum();
    $this->postJson("/api/ledger/$a/undo", ['fingerprint' => $look['fingerprint']])
        ->assertStatus(409)
        ->assertJsonPath('changed', ['what undoing it would come to']);
    expect(World::checksum())->toBe($now);
    // With the later one, it comes to all of both.
    $whole = $this->getJson("/api/ledger/$a/undo?together=true")
        ->assertOk()
        ->json();
    expect($whole['staysCount'])
        ->toBe(0)
        ->and(array_column($whole['first'], 'id'))
        ->toBe([$b])
        ->and($whole['blocked'])
        ->toBeFalse();
    $this->postJson("/api/ledger/$a/undo", ['fingerprint' => $whole['fingerprint'], 'first' => [$b]])
        ->assertOk()
        ->assertJsonPath('kept', []);
});

it('does not open a code again that another one has taken the place of', function (): void {
    $this->deleteJson("/api/sections/{$this->world->section}/code")->assertNoContent();
    $closed = (string) DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $this->postJson("/api/sections/{$this->world->section}/code")->assertOk();
    $opened = (string) DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $look = ($this->outlook)($closed);
    expect($look['stays'])
        ->toBe(['the join code of 3 Heron: its place has been taken since'])
        ->and(array_column($look['first'], 'id'))
        ->toBe([$opened]);
    ($this->undo)($closed)->assertOk();
    expect(DB::table('join_codes')->where('section_id', $this->world->section)->where('state', 'open')->count())->toBe(
        1,
    );
});
