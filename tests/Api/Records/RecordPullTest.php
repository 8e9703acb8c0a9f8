<?php

declare(strict_types=1);

use App\Intake\Jobs\PullRecord;
use App\Models\Intake;
use App\Models\OutgoingMessage;
use App\Models\School;
use App\StandIns\RecordMaker;
use App\StandIns\RecordSystem;
use Illuminate\Http\Client\Request;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Queue;
use Tests\Support\World;
use Vantrel\Core\OneRoster\Values;

beforeEach(function (): void {
    config(['vantrel.record_hosts' => 'records.example, 127.0.0.1:8230']);
    $this->world = World::make();
    foreach (
        [
            'Noor Haddad',
            'Sami Haddad',
            'Ana Souza',
            'Bo Li',
            'Zoe Zimmer',
            'Ada Brandt',
            'Ole Falk',
            'Ida Falk',
            'Max Vale',
            'Eva Vale',
            'Tom Aske',
        ]
        as $i => $name
    ) {
        $student = $this->world->student($name, $this->world->section, [
            'number' => sprintf('0301%02d', $i),
            'grade' => '03',
            'birth_date' => sprintf('2018-03-%02d', $i + 1),
        ]);
        $guardian = $this->world->person($this->world->school, 'guardian', "Parent$i " . explode(' ', $name)[1], [
            'email' => "parent$i@shoremail.example",
        ]);
        $this->world->insert('guardianships', [
            'student_id' => $student,
            'guardian_id' => $guardian,
            'state' => 'listed',
        ]);
    }
    $this->records = app(RecordMaker::class)->of(
        School::query()->findOrFail($this->world->school),
        '2026-09-20T06:00:00.000Z',
    );
    $this->asked = [];
    Http::preventStrayRequests();
    Http::fake(function (Request $request) {
        $url = parse_url($request->url());
        parse_str($url['query'] ?? '', $query);
        parse_str($request->method() === 'POST' ? $request->body() : '', $form);
        $this->asked[] = $url['path'] . (isset($query['filter']) ? " $query[filter]" : '');
        [$status, $headers, $body] = (new RecordSystem('vantrel', 'the secret', $this->records))->answer(
            $request->method(),
            $url['path'],
            $query,
            $form,
            $request->header('Authorization')[0] ?? '',
            'records.example',
            time(),
        );
        // It says http of itself, as services behind a proxy do.
        $headers = array_map(fn(string $h): string => str_replace('http://', 'https://', $h), $headers);

        return Http::response($body, $status, $headers);
    });
    $this->at = "/api/schools/{$this->world->school}/record";
    $this->named = [
        'base_url' => 'https://records.example/ims/oneroster/rostering/v1p2',
        'token_url' => 'https://records.example/token',
        'client_id' => 'vantrel',
        'client_secret' => 'the secret',
    ];
    $this->actingAs($this->world->as('coordinator'));
    $this->apply = function (string $id): void {
        $intake = Intake::query()->findOrFail($id);
        $this->postJson("/api/intakes/$id/apply", ['fingerprint' => $intake->fingerprint])->assertOk();
    };
});

it('is asked only at hosts that the installation names, and with the secret it was given for', function (): void {
    $this->getJson($this->at)->assertJson(['there' => false, 'hosts' => ['records.example', '127.0.0.1:8230']]);
    foreach (
        [
            ['base_url' => 'https://elsewhere.example/x'],
            ['base_url' => 'https://records.example.elsewhere.example/x'],
            ['base_url' => 'https://records.example@elsewhere.example/x'],
            ['base_url' => 'https://records.example:8443/x'],
            ['base_url' => 'http://records.example/ims'],
            ['base_url' => 'http://169.254.169.254/'],
            ['base_url' => 'file:///etc/passwd'],
            ['base_url' => 'nonsense'],
            ['token_url' => 'https://elsewhere.example/token'],
        ]
        as $no
    ) {
        $this->postJson($this->at, [...$this->named, ...$no])->assertStatus(422);
    }
    $this->postJson($this->at, [...$this->named, 'client_secret' => 'wrong'])
        ->assertStatus(422)
        ->assertJsonStructure(['errors' => ['client_secret']]);
    expect(DB::table('record_sources')->count())->toBe(0);
    $this->postJson($this->at, $this->named)
        ->assertOk()
        ->assertJson(['there' => true, 'clientId' => 'vantrel']);
    expect(DB::table('record_sources')->value('sealed_key'))->not->toContain('the secret');
    // Kept while nothing else changes; another place to send it to has to be given it anew.
    $this->postJson($this->at, [...$this->named, 'client_secret' => null, 'nightly' => true])
        ->assertOk()
        ->assertJson(['nightly' => true]);
    $this->postJson($this->at, [
        ...$this->named,
        'client_secret' => null,
        'token_url' => 'https://records.example/other',
    ])->assertStatus(422);
    $this->deleteJson($this->at)
        ->assertOk()
        ->assertJson(['there' => false]);
    $this->postJson("$this->at/pull", ['what' => 'whole'])->assertStatus(422);
});

it('comes in whole as a list like any other, matched with who is there', function (): void {
    $this->postJson($this->at, $this->named)->assertOk();
    $pulled = $this->postJson("$this->at/pull", ['what' => 'whole'])
        ->assertOk()
        ->json();
    $intake = Intake::query()->findOrFail($pulled['intake']);
    expect($intake->state->value)->toBe('planned')->and($intake->title)->toStartWith('The school’s record, whole');
    ($this->apply)($intake->id);
    $students = DB::table('people')
        ->where('school_id', $this->world->school)
        ->where('kind', 'student')
        ->where('state', 'active');
    expect($students->pluck('family_name')->all())
        ->toContain('Farrow', 'Quillon', 'Tanaka-Holt')
        ->and(DB::table('people')->where('email', 'basil.farrow@shoremail.example')->exists())
        ->toBeTrue()
        // Nobody was made twice: eleven and one were there, three have come.
        ->and($students->count())
        ->toBe(15);
    // The same once more changes nothing.
    $again = $this->postJson("$this->at/pull", ['what' => 'whole'])->json('intake');
    expect(Intake::query()->findOrFail($again)->summary['tallies']['new'] ?? 0)->toBe(0);
});

it('brings only what has changed since the last pull', function (): void {
    $this->postJson($this->at, $this->named)->assertOk();
    ($this->apply)(
        $this->postJson("$this->at/pull", ['what' => 'changes'])
            ->assertOk()
            ->json('intake'),
    );
    $nothing = $this->postJson("$this->at/pull", ['what' => 'changes'])
        ->assertOk()
        ->json();
    expect($nothing['intake'])->toBeNull()->and($nothing['said'])->toContain('Nothing has changed');
    expect(array_filter($this->asked, fn(string $a): bool => str_contains($a, "dateLastModified>='")))->not->toBe([]);
    // A guardian's address changes in the record: the child comes with it.
    $i = array_key_first(
        array_filter(
            $this->records['users'],
            fn(array $u): bool => Values::of($u, 'roles.role') === ['guardian'] && isset($u['agents']),
        ),
    );
    $this->records['users'][$i]['email'] = 'quite.new@shoremail.example';
    $this->records['users'][$i]['dateLastModified'] = now()->addMinute()->format('Y-m-d\TH:i:s.v\Z');
    $pulled = $this->postJson("$this->at/pull", ['what' => 'changes'])->json();
    $rows = $this->getJson("/api/intakes/{$pulled['intake']}/rows")->json('rows');
    expect(count(array_filter($rows, fn(array $r): bool => $r['sheet'] === 'students' || $r['sheet'] === '')))->toBe(1);
});

it('brings one student who joined after the last pull, by number', function (): void {
    $this->postJson($this->at, $this->named)->assertOk();
    $this->postJson("$this->at/pull", ['what' => 'one', 'number' => ''])->assertStatus(422);
    $this->postJson("$this->at/pull", ['what' => 'one', 'number' => "0' OR status='active"])
        ->assertStatus(422)
        ->assertJsonPath(
            'errors.number.0',
            fn(string $said): bool => str_contains($said, 'no student with the number'),
        );
    $pulled = $this->postJson("$this->at/pull", ['what' => 'one', 'number' => '031902'])
        ->assertOk()
        ->json();
    ($this->apply)($pulled['intake']);
    $dario = DB::table('people')->where('number', '031902')->first();
    expect($dario?->given_name)
        ->toBe('Dario')
        ->and(DB::table('enrollments')->where('person_id', $dario->id)->count())
        ->toBe(1)
        ->and(DB::table('guardianships')->where('student_id', $dario->id)->count())
        ->toBe(1)
        ->and(
            DB::table('people')
                ->whereIn('number', ['031901', '031903'])
                ->count(),
        )
        ->toBe(0);
});

it('is brought in by night inside the limits, and waits for somebody beyond them', function (): void {
    $this->postJson($this->at, [...$this->named, 'nightly' => true, 'most_new' => 2, 'most_changed' => 50])->assertOk();
    Artisan::call('vantrel:pull-record');
    $waiting = Intake::query()->sole();
    expect($waiting->state->value)
        ->toBe('planned')
        ->and(DB::table('people')->where('number', '031901')->exists())
        ->toBeFalse()
        ->and($this->getJson($this->at)->json('said'))
        ->toContain('more than a night may bring')
        ->and(OutgoingMessage::query()->latest('id')->value('text'))
        ->toContain('more than a night may bring');
    // While it waits, no night brings it once more.
    $mails = OutgoingMessage::query()->count();
    Artisan::call('vantrel:pull-record');
    expect(Intake::query()->count())
        ->toBe(1)
        ->and(OutgoingMessage::query()->count())
        ->toBe($mails);
    // Discarded, it is not forgotten: the next night asks for it again.
    $this->deleteJson("/api/intakes/$waiting->id")->assertSuccessful();
    DB::table('record_sources')->update(['most_new' => 5]);
    Artisan::call('vantrel:pull-record');
    expect(DB::table('people')->where('number', '031901')->exists())
        ->toBeTrue()
        ->and(Intake::query()->where('state', '!=', 'discarded')->count())
        ->toBe(0)
        ->and(DB::table('ledger_entries')->where('action', 'intake')->value('actor_id'))
        ->toBeNull();
    // Switched off, nothing is asked.
    DB::table('record_sources')->update(['nightly' => 0]);
    $this->asked = [];
    Artisan::call('vantrel:pull-record');
    expect($this->asked)->toBe([]);
});

it('leaves by night what needs a person where a person finds it, and applies the rest', function (): void {
    $this->postJson($this->at, [...$this->named, 'nightly' => true])->assertOk();
    // A child of the very name of one who is there, with another number: who that is is not for the night to say.
    $this->world->student('Mei Tanaka-Holt', null, ['number' => '777001', 'grade' => '01']);
    $this->world->student('Mei Tanaka-Holt', null, ['number' => '777002', 'grade' => '01']);
    foreach ($this->records['users'] as &$user) {
        if (($user['identifier'] ?? '') === '031903') {
            unset($user['identifier']);
        }
    }
    unset($user);
    Artisan::call('vantrel:pull-record');
    expect(DB::table('people')->where('number', '031901')->exists())
        ->toBeTrue()
        ->and(Intake::query()->sole()->state->value)
        ->toBe('planned')
        ->and(DB::table('record_sources')->value('list_id'))
        ->toBeNull();
});

it('does not forget changes whose list was discarded', function (): void {
    $this->postJson($this->at, $this->named)->assertOk();
    ($this->apply)($this->postJson("$this->at/pull", ['what' => 'whole'])->json('intake'));
    $this->travel(1)->hours();
    $this->app['session']->driver()->flush();
    $this->actingAs($this->world->as('coordinator'));
    $i = array_key_last($this->records['users']);
    $this->records['users'][$i]['email'] = 'quite.new@shoremail.example';
    $this->records['users'][$i]['dateLastModified'] = now()->format('Y-m-d\TH:i:s.v\Z');
    $first = $this->postJson("$this->at/pull", ['what' => 'changes'])->json('intake');
    expect($first)->not->toBeNull();
    $this->deleteJson("/api/intakes/$first")->assertSuccessful();
    $this->travel(1)->hours();
    $this->app['session']->driver()->flush();
    $this->actingAs($this->world->as('coordinator'));
    $again = $this->postJson("$this->at/pull", ['what' => 'changes'])->json('intake');
    expect($again)->not->toBeNull();
    ($this->apply)($again);
    expect(DB::table('people')->where('email', 'quite.new@shoremail.example')->exists())->toBeTrue();
    $this->travel(1)->hours();
    $this->app['session']->driver()->flush();
    $this->actingAs($this->world->as('coordinator'));
    expect($this->postJson("$this->at/pull", ['what' => 'changes'])->json('intake'))->toBeNull();
});

it('says in a sentence what a record says no to', function (): void {
    $this->postJson($this->at, $this->named)->assertOk();
    $this->records = ['orgs' => [], 'users' => []];
    $this->postJson("$this->at/pull", ['what' => 'whole'])
        ->assertOk()
        ->assertJson(['intake' => null, 'asking' => false])
        ->assertJsonPath('said', fn(string $s): bool => $s !== '');
    DB::table('record_sources')->update(['base_url' => 'https://records.example/nothing']);
    $this->postJson("$this->at/pull", ['what' => 'whole'])
        ->assertOk()
        ->assertJsonPath('said', fn(string $s): bool => str_contains($s, '404'));
    $this->getJson($this->at)->assertJson(['asking' => '', 'list' => null]);
    expect(Intake::query()->count())->toBe(0);
});

it('is asked in the background, once at a time, and says what came of it', function (): void {
    $this->postJson($this->at, $this->named)->assertOk();
    Queue::fake();
    $this->asked = [];
    $this->postJson("$this->at/pull", ['what' => 'whole'])
        ->assertOk()
        ->assertJson(['intake' => null, 'asking' => true]);
    expect($this->asked)->toBe([]);
    $this->getJson($this->at)->assertJson(['asking' => 'whole']);
    $this->postJson("$this->at/pull", ['what' => 'changes'])->assertStatus(422);
    Artisan::call('vantrel:pull-record', ['--school' => 'LF']);
    expect($this->asked)->toBe([]);
    $job = Queue::pushed(PullRecord::class)->sole();
    // Cut off every time: it can be asked again, and what is left of the job does nothing.
    $job->failed(null);
    $this->getJson($this->at)->assertJson([
        'asking' => '',
        'said' => 'Asking the record was cut off, and nothing came of it. Ask again.',
    ]);
    $this->app->call([$job, 'handle']);
    expect(Intake::query()->count())->toBe(0);
    $this->postJson("$this->at/pull", ['what' => 'whole'])->assertJson(['asking' => true]);
    $this->app->call([$job, 'handle']);
    $this->app->call([$job, 'handle']);
    $this->getJson($this->at)->assertJson(['asking' => '', 'said' => '', 'list' => Intake::query()->sole()->id]);
    // A job that is lost shuts nobody out.
    $this->postJson("$this->at/pull", ['what' => 'changes'])->assertJson(['asking' => true]);
    $this->travel(21)->minutes();
    $this->getJson($this->at)->assertJson(['asking' => '']);
    $this->postJson("$this->at/pull", ['what' => 'changes'])->assertJson(['asking' => true]);
});

it('is looked at beside whoever says to be a guardian', function (): void {
    $this->postJson($this->at, $this->named)->assertOk();
    $student = DB::table('people')->where('given_name', 'Noor')->where('kind', 'student')->value('id');
    $claim = $this->world->insert('guardian_claims', [
        'student_id' => $student,
        'given_name' => 'Parent0',
        'family_name' => 'Haddad',
        'email' => 'parent0@shoremail.example',
        'state' => 'waiting',
        'made_at' => now(),
    ]);
    $known = $this->getJson("/api/schools/{$this->world->school}/claims/$claim/record")
        ->assertOk()
        ->json('guardians');
    expect($known)
        ->toHaveCount(1)
        ->and($known[0])
        ->toMatchArray(['name' => 'Parent0 Haddad', 'alike' => ['name', 'address'], 'unlike' => []]);
    DB::table('people')
        ->where('id', $student)
        ->update(['number' => '999999']);
    $this->getJson("/api/schools/{$this->world->school}/claims/$claim/record")->assertStatus(422);
    DB::table('record_sources')->delete();
    $this->getJson("/api/schools/{$this->world->school}/claims/$claim/record")->assertStatus(422);
});
