<?php

declare(strict_types=1);

use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;

it('undoes a merge after a year, and says what has changed since', function (): void {
    readyToUndo($this);
    $a = $this->world->student('Noor Castell', $this->world->section, ['number' => '041001', 'grade' => '03']);
    $b = $this->world->student('Noor Castell', $this->world->otherSection, ['birth_date' => '2017-08-03']);
    $this->world->lookThrough();
    $uri = "/api/schools/{$this->world->school}/look-alikes/$a-$b";
    Carbon::setTestNow(now()->subDays(400));
    $merged = $this->postJson("$uri/merge", [
        'fingerprint' => $this->getJson($uri)->assertOk()->json('plan.fingerprint'),
    ])->assertOk();
    expect($merged->json('undoUntil'))->toBe(now()->addDays(1825)->format('Y-m-d\TH:i:s\Z'));
    Carbon::setTestNow(now()->addDays(200));
    ($this->change)($a, ['grade' => '04', 'phone' => '+12025550101']);
    Carbon::setTestNow();
    $this->flushSession();
    $this->actingAs($this->world->as('coordinator'));
    $outlook = $this->getJson("/api/ledger/{$merged->json('id')}/undo")->assertOk();
    expect($outlook->json('stays'))
        ->toContain('Noor Castell: changed since')
        ->and($outlook->json('blocked'))
        ->toBeFalse()
        // What is too old to be undone is not offered to be undone with it.
        ->and($outlook->json('first'))
        ->toBe([]);
    $this->postJson("/api/ledger/{$merged->json('id')}/undo")->assertOk();
    expect(DB::table('people')->where('id', $b)->value('state'))
        ->toBe('active')
        ->and(DB::table('people')->where('id', $a)->value('grade'))
        ->toBe('04')
        ->and(DB::table('sign_ins')->where('person_id', $b)->count())
        ->toBe(1)
        ->and(DB::table('enrollments')->where('person_id', $b)->whereNull('ends_on')->count())
        ->toBe(1);
});
