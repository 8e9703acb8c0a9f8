<?php

declare(strict_types=1);

use Carbon\CarbonImmutable;
use Illuminate\Support\Facades\DB;

// The Desk: what waits, what is put off until when, and what others have done since one read it last.

beforeEach(function (): void {
    readyToUndo($this);
    $this->world->student('Noor Castell');
    $this->world->lookThrough();
    $this->uri = "/api/schools/{$this->world->school}/desk";
    $this->open = fn(): array => array_column($this->getJson($this->uri)->assertOk()->json('loops'), 'key');
    $this->in = fn(int $days): string => CarbonImmutable::now()->addDays($days)->format('Y-m-d');
});

it('puts off what waits, for everyone of the school, until the day, and has it back', function (): void {
    expect(($this->open)())->toContain('unplaced');
    $desk = $this->postJson("$this->uri/put-off", [
        'loop' => 'unplaced',
        'until' => ($this->in)(7),
        'reason' => '  The timetable comes on Monday.  ',
    ])
        ->assertOk()
        ->json();
    expect(array_column($desk['loops'], 'key'))
        ->not->toContain('unplaced')
        ->and($desk['putOff'])
        ->toBe([
            [
                'key' => 'unplaced',
                'title' => 'Unplaced student',
                'count' => 1,
                'until' => ($this->in)(7),
                'reason' => 'The timetable comes on Monday.',
                'by' => 'Ines Halloran',
            ],
        ]);
    // Put off again, the last word counts.
    $this->postJson("$this->uri/put-off", ['loop' => 'unplaced', 'until' => ($this->in)(3), 'reason' => 'Sooner.'])
        ->assertOk()
        ->assertJsonPath('putOff.0.until', ($this->in)(3));
    DB::table('desk_put_off')->update(['until' => CarbonImmutable::now()->format('Y-m-d')]);
    expect(($this->open)())->toContain('unplaced');
    DB::table('desk_put_off')->update(['until' => ($this->in)(3)]);
    $this->postJson("$this->uri/take-back", ['loop' => 'unplaced'])
        ->assertOk()
        ->assertJsonPath('putOff', []);
    expect(($this->open)())->toContain('unplaced');
});

it('puts off nothing without a day to come, a reason, or a thing that waits', function (
    array $wish,
    string $field,
): void {
    $wish = [
        'loop' => 'unplaced',
        'until' => ($this->in)(7),
        'reason' => 'So.',
        ...array_map(fn(mixed $v): mixed => is_int($v) ? ($this->in)($v) : $v, $wish),
    ];
    $response = $this->postJson("$this->uri/put-off", $wish)->assertStatus(422);
    expect(array_keys($response->json('errors') ?? []))->toBe($field === '' ? [] : [$field]);
    expect(DB::table('desk_put_off')->count())->toBe(0);
})->with([
    [['until' => 0], 'until'],
    [['until' => -3], 'until'],
    [['until' => 400], 'until'],
    [['until' => 'soon'], 'until'],
    [['reason' => '   '], 'reason'],
    [['reason' => str_repeat('a', 201)], 'reason'],
    [['loop' => 'the_weather'], ''],
    [['loop' => '../x'], 'loop'],
]);

it('says what others have done since one read it, in five lines, and nothing of one’s own', function (): void {
    $noor = $this->world->people['student'];
    $this->getJson($this->uri)->assertOk()->assertJsonPath('news.since', null)->assertJsonPath('news.lines', []);
    ($this->change)($noor, ['grade' => '01']);
    $this->postJson("$this->uri/read")->assertNoContent();
    $this->getJson($this->uri)->assertJsonPath('news.lines', []);
    $own = ($this->change)($noor, ['grade' => '02']);
    DB::table('ledger_entries')
        ->where('seq', $own->seq)
        ->update(['actor_id' => $this->world->people['coordinator']]);
    $others = [];
    for ($n = 0; $n < 6; $n++) {
        $others[] = ($this->change)($noor, ['grade' => sprintf('%02d', 3 + $n)])->seq;
    }
    DB::table('ledger_entries')
        ->whereIn('seq', $others)
        ->update(['actor_id' => $this->world->people['lead']]);
    $news = $this->getJson($this->uri)->assertOk()->json('news');
    expect($news['lines'])
        ->toHaveCount(4)
        ->and($news['more'])
        ->toBe(2)
        ->and($news['lines'][0]['actor'])
        ->toBe(
            DB::table('people')
                ->where('id', $this->world->people['lead'])
                ->selectRaw("concat(given_name, ' ', family_name) n")
                ->value('n'),
        );
    $this->postJson("$this->uri/read")->assertNoContent();
    $this->getJson($this->uri)->assertJsonPath('news.lines', [])->assertJsonPath('news.more', 0);
});
