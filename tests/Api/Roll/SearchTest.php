<?php

declare(strict_types=1);

use App\Roll\SearchIndex;
use App\Tools\BigSchool;
use App\Tools\DamagedQueries;
use Illuminate\Support\Facades\DB;

// Anybody is found by any part of what is known of them, typed badly; and what they are found by follows every entry.

beforeEach(function (): void {
    readyToUndo($this);
    $this->uri = "/api/schools/{$this->world->school}";
    $this->found = fn(string $q): array => array_column(
        $this->getJson("$this->uri/find?q=" . urlencode($q))
            ->assertOk()
            ->json('people'),
        'name',
    );
});

it('finds by slips, sound, form, order, parts and whatever else is known, the best first', function (
    string $q,
    string $first,
): void {
    $this->world->student('Robert Kowalczyk', null, ['number' => '020777']);
    $this->world->student('Noor Haddad', null, ['email' => 'n.h@lanternfield.example']);
    $this->world->student('Keiko de la Cruz');
    $this->world->student('Saoirse O’Dwyer');
    $this->world->person($this->world->school, 'guardian', 'Helene Marchetti', ['phone' => '+12025550123']);
    $this->world->lookThrough();
    expect(($this->found)($q)[0] ?? 'nobody')->toBe($first);
})->with([
    ['kowalzcyk', 'Robert Kowalczyk'],
    ['bob kowalcyk', 'Robert Kowalczyk'],
    ['kovalchik robert', 'Robert Kowalczyk'],
    ['r kowal', 'Robert Kowalczyk'],
    ['20777', 'Robert Kowalczyk'],
    // A number with a slip, where no other has it.
    ['020778', 'Robert Kowalczyk'],
    ['027077', 'Robert Kowalczyk'],
    ['0207777', 'Robert Kowalczyk'],
    ['20776 kowal', 'Robert Kowalczyk'],
    ['hadad noor', 'Noor Haddad'],
    ['HADDAD, NOOR', 'Noor Haddad'],
    ['n.h@lan', 'Noor Haddad'],
    ['@lanternfield', 'Noor Haddad'],
    ['delacruz', 'Keiko de la Cruz'],
    ['keiko cruz', 'Keiko de la Cruz'],
    ["o'dwyer", 'Saoirse O’Dwyer'],
    ['seersha odwyer', 'Saoirse O’Dwyer'],
    ['5550123', 'Helene Marchetti'],
    ['(202) 555-0123', 'Helene Marchetti'],
    // One word of several is of somebody else, or nobody's.
    ['noor haddad xyzzy', 'Noor Haddad'],
    ['xyzzy', 'nobody'],
    ['%', 'nobody'],
]);

it('follows a change of name, its undo, and the end of an account', function (): void {
    $noor = $this->world->student('Noor Castell');
    $this->world->lookThrough();
    $entry = ($this->change)($noor, ['family_name' => 'Brightwater', 'search_name' => 'noor brightwater']);
    expect(($this->found)('brightwater'))
        ->toBe(['Noor Brightwater'])
        // Who knows her by the old name finds her too.
        ->and(($this->found)('castell'))
        ->toBe(['Noor Brightwater']);
    $this->world->student('Noor Castell');
    app(SearchIndex::class)->all();
    expect(($this->found)('noor castell'))->toEqualCanonicalizing(['Noor Castell', 'Noor Brightwater']);
    ($this->undo)($entry->id)->assertOk();
    expect(($this->found)('brightwater'))->toBe([]);
    ($this->change)($noor, ['state' => 'left']);
    expect(($this->found)('noor castell'))->toBe(['Noor Castell']);
});

it('finds who was merged under the name that went', function (): void {
    $a = $this->world->student('Noor Castell', null, ['number' => '020417']);
    $b = $this->world->student('Noor Kastelle');
    $this->world->lookThrough();
    $pair = "$this->uri/look-alikes/$a-$b";
    $merged = $this->postJson("$pair/merge", ['fingerprint' => $this->getJson($pair)->json('plan.fingerprint')])
        ->assertOk()
        ->json('id');
    $name = DB::table('people')->where('state', 'merged')->value('family_name');
    expect(($this->found)("noor $name"))->toHaveCount(1);
    ($this->undo)($merged)->assertOk();
    expect(($this->found)('noor castell'))->toBe(['Noor Castell', 'Noor Kastelle']);
});

it('leaves no words of who is gone', function (): void {
    $list = ($this->list)("Given name,Family name,Grade\nXanthe,Quillfeather,3\n");
    expect(($this->found)('quillfether'))->toBe(['Xanthe Quillfeather']);
    ($this->undo)($list)->assertOk();
    expect(($this->found)('quillfeather'))
        ->toBe([])
        ->and(DB::table('search_words')->where('word', 'quillfeather')->count())
        ->toBe(0);
});

it('finds by their words, right after it, those of a list of many', function (): void {
    $rows = array_map(
        fn(int $i): string => 'Xan' .
            chr(97 + ($i % 26)) .
            chr(97 + intdiv($i, 26)) .
            ',Quill' .
            strtr((string) $i, '0123456789', 'abcdefghij') .
            ',3',
        range(0, 599),
    );
    $list = ($this->list)("Given name,Family name,Grade\n" . implode("\n", $rows) . "\n");
    expect(($this->found)('quillfjj')[0])->toEndWith('Quillfjj');
    ($this->undo)($list)->assertOk();
    expect(($this->found)('quillfjj'))
        ->toBe([])
        ->and(DB::table('search_words')->where('word', 'like', 'quill%')->count())
        ->toBe(0);
});

it('goes on page after page in the order of what fits, and by another order where that is asked', function (): void {
    for ($i = 0; $i < 250; $i++) {
        $this->world->person($this->world->school, 'student', 'Noor Castell', ['number' => sprintf('5%04d', $i)]);
    }
    $this->world->person($this->world->school, 'student', 'Noor Castel', ['number' => '60000']);
    app(SearchIndex::class)->all();
    $first = $this->getJson("$this->uri/people?kind=student&q=noor+castel")
        ->assertOk()
        ->json();
    expect($first['people'][0]['name'])
        ->toBe('Noor Castel')
        ->and($first['total'])
        ->toBe(251)
        ->and($first['people'])
        ->toHaveCount(200);
    $next = $this->getJson("$this->uri/people?kind=student&q=noor+castel&after=" . urlencode($first['next']))->json();
    expect($next['people'])
        ->toHaveCount(51)
        ->and($next['next'])
        ->toBeNull()
        ->and(array_intersect(array_column($first['people'], 'id'), array_column($next['people'], 'id')))
        ->toBe([]);
    $byNumber = $this->getJson("$this->uri/people?kind=student&q=noor+castel&sort=number&down=true")->json();
    expect($byNumber['people'][0]['number'])->toBe('60000')->and($byNumber['total'])->toBe(251);
});

it('finds the one that is meant among the first three, in 98 of 100', function (): void {
    (new BigSchool($this->world->schoolModel(), $this->world->year, 14))->fill(4000, 40, 0);
    app(SearchIndex::class)->all();
    $queries = new DamagedQueries(141);
    $wanted = DB::table('people')
        ->where('kind', 'student')
        ->where('state', 'active')
        ->where('school_id', $this->world->school)
        ->orderByRaw('md5(id)')
        ->limit(300)
        ->get(['given_name', 'family_name', 'number', 'email']);
    $missed = [];
    foreach ($wanted as $person) {
        [$q] = $queries->of($person);
        if (!in_array("$person->given_name $person->family_name", array_slice(($this->found)($q), 0, 3), true)) {
            $missed[] = "$q: $person->given_name $person->family_name";
        }
    }
    expect(count($missed))->toBeLessThanOrEqual(6, implode("\n", $missed));
});
