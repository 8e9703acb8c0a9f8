<?php

declare(strict_types=1);

use App\Models\Person;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// Two schools of one coordinator seen as one: the Roll, the Desk, look-alikes across, and who goes from one to the
// other; and what somebody who coordinates but one of them, or another, sees of it.

beforeEach(function (): void {
    $this->world = World::make();
    [$this->here, $this->there] = [$this->world->school, $this->world->otherSchool];
    $this->both = $this->world->staff($this->here, 'Ottilie Brandvold');
    $this->world->people['both'] = $this->both;
    foreach ([$this->here, $this->there] as $school) {
        $this->world->coordinates($this->both, $school);
    }
    $this->as = fn(string $role) => $this->actingAs($this->world->as($role));
    $this->six = $this->world->section($this->there, '6 Tern', 'homeroom', '06');
    $this->pupil = fn(string $school, string $name, array $more = []): string => $this->world->person(
        $school,
        'student',
        $name,
        $more,
    );
    $this->ledgers = fn(string $entry): array => DB::table('ledger_schools as s')
        ->join('ledger_entries as e', 'e.seq', '=', 's.entry_seq')
        ->where('e.id', $entry)
        ->orderBy('s.school_id')
        ->pluck('s.school_id')
        ->all();
    $this->schools = [$this->here, $this->there];
    sort($this->schools);
});

describe('the Roll', function (): void {
    beforeEach(function (): void {
        // More than a page of each, in turns through the alphabet.
        foreach (range(1, 260) as $i) {
            ($this->pupil)($this->here, sprintf('Ada N%03da', $i), ['grade' => '03']);
            ($this->pupil)($this->there, sprintf('Bo N%03db', $i), ['grade' => '06']);
        }
        $this->world->lookThrough();
        $this->roll = function (array $query, string $role = 'both'): array {
            $people = [];
            do {
                $page = ($this->as)($role)
                    ->getJson(
                        '/api/schools/all/people?' . http_build_query([...$query, 'after' => $page['next'] ?? '']),
                    )
                    ->assertOk()
                    ->json();
                array_push($people, ...$page['people']);
                $total = $page['total'];
            } while ($page['next'] !== null);
            expect($people)->toHaveCount($total);

            return $people;
        };
    });

    it('is one list in one order, whatever it is sorted by', function (): void {
        foreach (['name', 'grade'] as $sort) {
            foreach ([false, true] as $down) {
                $all = ($this->roll)(['kind' => 'student', 'sort' => $sort, 'down' => $down ? 1 : 0]);
                $names = array_column($all, 'name');
                expect($all)->toHaveCount(521)->and(array_unique($names))->toHaveCount(521);
                $want = collect($all)
                    ->sortBy(
                        fn(array $p): string => ($sort === 'grade' ? $p['grade'] : '') .
                            strtolower(implode(' ', array_reverse(explode(' ', $p['name'])))),
                        SORT_STRING,
                        $down,
                    )
                    ->pluck('name')
                    ->all();
                expect($names)->toBe($want, "$sort " . ($down ? 'down' : 'up'));
            }
        }
    });

    it('is filtered by school, problem and words', function (): void {
        $ofSchool = ($this->roll)(['kind' => 'student', 'school' => $this->there]);
        expect(array_unique(array_column($ofSchool, 'schoolId')))
            ->toBe([$this->there])
            ->and($ofSchool)
            ->toHaveCount(260);
        $unplaced = ($this->roll)(['kind' => 'student', 'problem' => 'unplaced']);
        expect(array_count_values(array_column($unplaced, 'schoolId')))->toEqual([
            $this->here => 260,
            $this->there => 260,
        ]);
        $found = ($this->roll)(['kind' => 'student', 'q' => 'n017b']);
        expect($found[0])->toMatchArray(['name' => 'Bo N017b', 'schoolId' => $this->there]);
        ($this->as)('both')
            ->getJson('/api/schools/all/find?q=n017b')
            ->assertOk()
            ->assertJsonPath('people.0.schoolId', $this->there);
    });

    it('holds nothing of a school that is not theirs', function (): void {
        $own = ($this->roll)(['kind' => 'student'], 'other coordinator');
        expect(array_unique(array_column($own, 'schoolId')))
            ->toBe([$this->there])
            ->and(($this->roll)(['kind' => 'student', 'school' => $this->here], 'other coordinator'))
            ->toBe([]);
        foreach (['lead', 'other teacher', 'student', 'guardian'] as $role) {
            foreach (['people', 'find?q=ada', 'desks', 'look-alikes'] as $what) {
                ($this->as)($role)
                    ->getJson("/api/schools/all/$what")
                    ->assertForbidden();
            }
        }
        $this->app['auth']->forgetGuards();
        $this->getJson('/api/schools/all/people')->assertUnauthorized();
        // Who is a coordinator no longer has no district either.
        DB::table('coordinators')
            ->where('person_id', $this->both)
            ->update(['state' => 'ended']);
        ($this->as)('both')->getJson('/api/schools/all/people')->assertForbidden();
    });
});

describe('look-alikes', function (): void {
    beforeEach(function (): void {
        for ($i = 0; $i < 60; $i++) {
            ($this->pupil)($this->here, 'Child' . chr(97 + ($i % 26)) . " Other$i", ['number' => "03$i"]);
        }
        $noor = ['birth_date' => '2015-08-03'];
        $this->old = $this->world->student('Noor Castell', $this->world->section, [
            ...$noor,
            'number' => '020500',
            'grade' => '05',
        ]);
        DB::table('sign_ins')
            ->where('person_id', $this->old)
            ->update(['last_signed_in_at' => '2026-06-01 08:00:00']);
        $this->new = ($this->pupil)($this->there, 'Noor Castell', [...$noor, 'number' => '070500', 'grade' => '06']);
        $this->world->enroll($this->six, $this->new, 'student', '2026-09-01');
        $this->world->lookThrough();
        $this->id = min($this->old, $this->new) . '-' . max($this->old, $this->new);
        $this->list = fn(string $role, string $realm): array => array_column(
            ($this->as)($role)
                ->getJson("/api/schools/$realm/look-alikes")
                ->assertOk()
                ->json('clusters'),
            'id',
        );
    });

    it('finds a child who has changed school, for those who coordinate both', function (): void {
        expect(($this->list)('both', 'all'))
            ->toBe([$this->id])
            ->and(($this->list)('both', $this->here))
            ->toBe([])
            ->and(($this->list)('coordinator', 'all'))
            ->toBe([])
            ->and(($this->list)('other coordinator', 'all'))
            ->toBe([]);
        ($this->as)('coordinator')
            ->getJson("/api/schools/all/look-alikes/$this->id")
            ->assertNotFound();
        ($this->as)('both')
            ->getJson("/api/schools/$this->here/look-alikes/$this->id")
            ->assertNotFound();
    });

    it('makes them one at the school they are at now, and two again', function (): void {
        $before = World::checksum();
        $uri = "/api/schools/all/look-alikes/$this->id";
        $cluster = ($this->as)('both')->getJson($uri)->assertOk();
        $field = fn(string $column): array => collect($cluster->json('fields'))->firstWhere('column', $column);
        expect($field('school_id'))
            ->toMatchArray(['stays' => 'Copperbrook Middle', 'why' => 'came into a section there last'])
            ->and($field('number'))
            ->toMatchArray(['stays' => '070500'])
            ->and($field('grade'))
            ->toMatchArray(['stays' => '06'])
            ->and($cluster->json('why'))
            ->toBe('signed in last')
            ->and($cluster->json('plan.sentence'))
            ->toContain('The person is at Copperbrook Middle.')
            ->toContain('What they were in elsewhere ends today: 3 Heron.');
        $merged = $this->postJson("$uri/merge", [
            'fingerprint' => $cluster->json('plan.fingerprint'),
            'picks' => [],
        ])->assertOk();
        $noor = Person::query()->findOrFail($this->old);
        expect([$noor->school_id, $noor->number, $noor->grade])
            ->toBe([$this->there, '070500', '06'])
            ->and(
                DB::table('enrollments')
                    ->where('person_id', $this->old)
                    ->whereNull('ends_on')
                    ->pluck('section_id')
                    ->all(),
            )
            ->toBe([$this->six])
            ->and(($this->ledgers)($merged->json('id')))
            ->toBe($this->schools)
            ->and(($this->list)('both', 'all'))
            ->toBe([]);
        // Either school sees the entry; who coordinates both can take it back.
        ($this->as)('other coordinator')
            ->postJson("/api/ledger/{$merged->json('id')}/undo")
            ->assertForbidden();
        ($this->as)('both')
            ->postJson("/api/ledger/{$merged->json('id')}/undo")
            ->assertOk()
            ->assertJsonPath('kept', []);
        expect(World::checksum())->toBe($before);
    });

    it('lets the other school be chosen', function (): void {
        $uri = "/api/schools/all/look-alikes/$this->id";
        $picks = ['school_id' => $this->old];
        $cluster = ($this->as)('both')
            ->getJson("$uri?picks=" . urlencode((string) json_encode($picks)))
            ->assertOk();
        $this->postJson("$uri/merge", [
            'fingerprint' => $cluster->json('plan.fingerprint'),
            'picks' => $picks,
        ])->assertOk();
        $noor = Person::query()->findOrFail($this->old);
        expect([$noor->school_id, $noor->number, $noor->grade])
            ->toBe([$this->here, '020500', '05'])
            ->and(
                DB::table('enrollments')
                    ->where('person_id', $this->old)
                    ->whereNull('ends_on')
                    ->pluck('section_id')
                    ->all(),
            )
            ->toBe([$this->world->section]);
    });

    it('asks no more about two that are two', function (): void {
        $apart = ($this->as)('both')
            ->postJson("/api/schools/all/look-alikes/$this->id/apart")
            ->assertOk();
        expect(($this->list)('both', 'all'))->toBe([])->and(($this->ledgers)($apart->json('id')))->toBe($this->schools);
    });

    it('merges several clear ones at once, each into the ledgers of its schools', function (): void {
        $seen = ($this->as)('both')
            ->postJson('/api/schools/all/look-alikes/many/plan', ['clusters' => [$this->id]])
            ->assertOk();
        $this->postJson('/api/schools/all/look-alikes/many', [
            'clusters' => [$this->id],
            'fingerprint' => $seen->json('fingerprint'),
            'seed' => $seen->json('seed'),
        ])->assertOk();
        expect(DB::table('people')->where('merged_into', $this->old)->count())
            ->toBe(1)
            ->and(($this->ledgers)((string) DB::table('ledger_entries')->orderByDesc('seq')->value('id')))
            ->toBe($this->schools);
    });
});

describe('transfers', function (): void {
    beforeEach(function (): void {
        $this->student = $this->world->people['student'];
        $this->guardian = $this->world->people['guardian'];
        $this->send = function (array $people, string $to, string $role = 'both') {
            $wish = ['people' => $people, 'to' => $to];
            $plan = ($this->as)($role)->postJson('/api/schools/all/transfer/plan', $wish);

            return [
                $plan,
                fn() => $this->postJson('/api/schools/all/transfer', [
                    ...$wish,
                    'fingerprint' => $plan->json('fingerprint'),
                    'seed' => $plan->json('seed'),
                ]),
            ];
        };
    });

    it('send students and their guardians to the other school, in both ledgers, and back', function (): void {
        $request = $this->world->insert('transfer_requests', [
            'person_id' => $this->student,
            'from_school_id' => $this->here,
            'to_school_id' => $this->there,
            'kind' => 'transfer',
            'state' => 'waiting',
            'said' => '{}',
            'made_at' => now(),
        ]);
        $before = World::checksum();
        [$plan, $apply] = ($this->send)([$this->student], $this->there);
        $plan
            ->assertOk()
            ->assertJsonPath('title', 'Wilhelmina Seabright to Copperbrook Middle')
            ->assertJsonPath('rows.0.verdict', 'update')
            ->assertJsonPath('rows.0.why', 'grade 3 is not taught there');
        $apply()->assertOk();
        $school = fn(string $id): string => (string) DB::table('people')->where('id', $id)->value('school_id');
        $entry = (string) DB::table('ledger_entries')->orderByDesc('seq')->value('id');
        expect([$school($this->student), $school($this->guardian)])
            ->toBe([$this->there, $this->there])
            ->and(DB::table('enrollments')->where('person_id', $this->student)->value('ends_on'))
            ->toBe(gmdate('Y-m-d'))
            ->and(DB::table('transfer_requests')->where('id', $request)->value('state'))
            ->toBe('accepted')
            ->and(($this->ledgers)($entry))
            ->toBe($this->schools);
        ($this->as)('coordinator')
            ->postJson("/api/ledger/$entry/undo")
            ->assertForbidden();
        ($this->as)('both')
            ->postJson("/api/ledger/$entry/undo")
            ->assertOk()
            ->assertJsonPath('kept', []);
        expect(World::checksum())->toBe($before);
    });

    it('leave who cannot go, and say why', function (): void {
        ($this->pupil)($this->there, 'Marlo Quill', ['number' => '020001']);
        $there = ($this->pupil)($this->there, 'Ines Vale');
        [$plan, $apply] = ($this->send)([$this->student, $there], $this->there);
        $why = array_column($plan->json('rows'), 'why');
        sort($why);
        expect($why)->toBe(['number 020001 is Marlo Quill’s there: change one of them first', 'there already']);
        $apply();
        expect(DB::table('people')->where('id', $this->student)->value('school_id'))->toBe($this->here);
    });

    it('are for those who coordinate both schools', function (): void {
        foreach (
            [['coordinator', [$this->student], $this->there], ['other coordinator', [$this->student], $this->there]]
            as [$role, $people, $to]
        ) {
            [$plan] = ($this->send)($people, $to, $role);
            $plan->assertNotFound();
        }
        [$plan] = ($this->send)([$this->student], '01K3CNQ0000000000000000000');
        $plan->assertNotFound();
        [$plan] = ($this->send)(['01K3CNQ0000000000000000000'], $this->there);
        $plan->assertNotFound();
    });

    it('are refused where the plan has changed since it was looked at', function (): void {
        [, $apply] = ($this->send)([$this->student], $this->there);
        DB::table('people')
            ->where('id', $this->student)
            ->update(['given_name' => 'Mina', 'version' => 7]);
        $apply()->assertConflict();
        expect(DB::table('people')->where('id', $this->student)->value('school_id'))->toBe($this->here);
    });
});

it('counts what waits at every school, and leaves out what is put off there', function (): void {
    ($this->pupil)($this->there, 'Bo Marsh');
    ($this->pupil)($this->here, 'Ada Thistle');
    $this->world->lookThrough();
    $desk = fn(): array => ($this->as)('both')->getJson('/api/schools/all/desks')->assertOk()->json();
    $loop = fn(string $key): ?array => collect($desk()['loops'])->firstWhere('key', $key);
    expect(array_column($desk()['schools'], 'name'))
        ->toBe(['Copperbrook Middle', 'Lanternfield Primary'])
        ->and($loop('unplaced'))
        ->toMatchArray(['title' => 'Unplaced students', 'total' => 2])
        ->and(array_column($loop('unplaced')['at'], 'count', 'schoolId'))
        ->toEqual([$this->here => 1, $this->there => 1]);
    $this->postJson("/api/schools/$this->here/desk/put-off", [
        'loop' => 'unplaced',
        'until' => gmdate('Y-m-d', time() + 86400 * 7),
        'reason' => 'After the fair',
    ])->assertOk();
    expect($loop('unplaced'))
        ->toMatchArray(['title' => 'Unplaced student', 'total' => 1])
        ->and($loop('unplaced')['at'][0]['schoolId'])
        ->toBe($this->there);
    // What others do once one has read what they did.
    $this->postJson('/api/schools/all/desks/read')->assertNoContent();
    expect($desk()['news'])->toBe([]);
    ($this->as)('other coordinator')
        ->postJson("/api/schools/$this->there/many-sections", [])
        ->assertUnprocessable();
    ($this->as)('other coordinator')
        ->postJson("/api/schools/$this->there/sections", ['name' => 'Kites', 'kind' => 'class'])
        ->assertOk();
    expect($desk()['news'])
        ->toHaveCount(1)
        ->and($desk()['news'][0])
        ->toMatchArray(['schoolId' => $this->there])
        ->and($desk()['news'][0]['line']['title'])
        ->toContain('Kites');
});
