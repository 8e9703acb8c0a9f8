<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    [$this->from, $this->to] = [$this->world->school, $this->world->otherSchool];
    $this->student = $this->world->people['student'];
    $this->as = fn(string $role) => $this->actingAs($this->world->as($role));
    $this->bring = fn(string $role, string $csv, string $school): string => ($this->as)($role)
        ->post(
            "/api/schools/$school/intakes",
            ['files' => [UploadedFile::fake()->createWithContent('list.csv', $csv)]],
            ['Accept' => 'application/json'],
        )
        ->assertOk()
        ->json('id');
    $this->show = fn(string $id): array => $this->getJson("/api/intakes/$id")
        ->assertOk()
        ->json();
    $this->apply = fn(string $id) => $this->postJson("/api/intakes/$id/apply", [
        'fingerprint' => ($this->show)($id)['fingerprint'],
    ])->assertOk();
    /** The middle school's list means a child of the primary school, and its coordinator asks for them. */
    $this->ask = function (string $how = 'ask-transfer'): void {
        $id = ($this->bring)(
            'other coordinator',
            "Student number,Name,Birth date,Grade,Homeroom\n070001,Wilhelmina Seabright,2018-02-11,6,6 Tern\n" .
                "070002,Marlo Quill,2014-01-01,6,6 Tern\n",
            $this->to,
        );
        $question = ($this->show)($id)['questions'][0];
        $this->postJson("/api/intakes/$id/answers", [
            'answers' => [$question['id'] => "is:$this->student:$how"],
        ])->assertOk();
        ($this->apply)($id);
    };
});

it('asks the other school, which sees both sides; nothing of the student changes until it answers', function (): void {
    $before = DB::table('people')->where('id', $this->student)->get()->toArray();
    ($this->ask)();
    expect(DB::table('people')->where('id', $this->student)->get()->toArray())
        ->toEqual($before)
        ->and(DB::table('people')->where('family_name', 'Quill')->value('school_id'))
        ->toBe($this->to);
    expect(DB::table('ledger_entries')->orderByDesc('seq')->value('sentence'))
        ->toContain('asks other schools for 1 student')
        ->not->toContain('member of staff');
    $asked = $this->getJson("/api/schools/$this->to/transfers")
        ->assertOk()
        ->json('requests.0');
    expect($asked)->toMatchArray([
        'ours' => false,
        'state' => 'waiting',
        'school' => 'Lanternfield Primary',
        'student' => '',
        'studentId' => null,
        'evidence' => [],
        'said' => 'Wilhelmina Seabright, grade 6, number 070001, born 2018-02-11',
    ]);
    ($this->as)('coordinator');
    $line = $this->getJson("/api/schools/$this->from/transfers")
        ->assertOk()
        ->json('requests.0');
    expect($line)
        ->toMatchArray([
            'ours' => true,
            'school' => 'Copperbrook Middle',
            'student' => 'Wilhelmina Seabright, grade 3',
            'sections' => ['6 Tern'],
            'askedBy' => 'Saskia Thorne',
        ])
        ->and(collect($line['evidence'])->firstWhere('field', 'birth date'))
        ->toMatchArray(['left' => '2018-02-11', 'right' => '2018-02-11', 'level' => 'alike']);
    expect(
        collect($this->getJson("/api/schools/$this->from/desk")->json('loops'))->firstWhere('key', 'transfers'),
    )->toMatchArray(['count' => 1, 'path' => 'transfers']);
    // Asked again, it is one request.
    ($this->ask)();
    expect(DB::table('transfer_requests')->count())->toBe(1);
});

it('moves the student when the school lets them go, in both ledgers, and undoes it from either', function (
    string $role,
    string $school,
): void {
    ($this->ask)();
    $before = World::checksum();
    $roles = DB::table('coordinators')->pluck('id');
    $id = DB::table('transfer_requests')->value('id');
    ($this->as)('other coordinator')
        ->postJson("/api/schools/$this->to/transfers/$id/accept")
        ->assertStatus(404);
    $this->postJson("/api/schools/$this->from/transfers/$id/accept")->assertStatus(403);
    ($this->as)('coordinator')
        ->postJson("/api/schools/$this->from/transfers/$id/accept")
        ->assertOk()
        ->assertJsonPath(
            'said',
            'Wilhelmina Seabright moves to Copperbrook Middle; sections here end today. The account and its ' .
                'cards go on working. Comes into 6 Tern. 1 guardian goes along.',
        );
    $this->postJson("/api/schools/$this->from/transfers/$id/accept")->assertStatus(422);
    $moved = DB::table('people')->where('id', $this->student)->first();
    expect([$moved->school_id, $moved->number, $moved->grade])
        ->toBe([$this->to, '070001', '06'])
        ->and(DB::table('enrollments')->where('person_id', $this->student)->whereNull('ends_on')->count())
        ->toBe(1);
    ($this->as)('other coordinator')
        ->getJson("/api/schools/$this->to/ledger")
        ->assertJsonPath('entries.0.title', 'Wilhelmina Seabright to Copperbrook Middle');
    ($this->as)('coordinator')
        ->getJson("/api/schools/$this->from/ledger")
        ->assertJsonPath('entries.0.title', 'Wilhelmina Seabright to Copperbrook Middle');
    $entry = DB::table('ledger_entries')->where('action', 'transfer')->value('id');
    ($this->as)($role)
        ->getJson("/api/ledger/$entry")
        ->assertOk();
    // It is undone at both schools, so by somebody of both.
    $this->getJson("/api/ledger/$entry/undo")->assertForbidden();
    $this->postJson("/api/ledger/$entry/undo")
        ->assertForbidden()
        ->assertJsonPath(
            'detail',
            'It concerns another school too. Somebody who coordinates every school in it can undo it.',
        );
    foreach ([$this->from, $this->to] as $school) {
        DB::table('coordinators')->insertOrIgnore([
            'id' => ulid(),
            'person_id' => $this->world->people[$role],
            'school_id' => $school,
            'state' => 'active',
        ]);
    }
    $this->postJson("/api/ledger/$entry/undo")
        ->assertOk()
        ->assertJsonPath('kept', []);
    DB::table('coordinators')->whereNotIn('id', $roles)->delete();
    expect(World::checksum())->toBe($before);
})->with([['coordinator', 'from'], ['other coordinator', 'to']]);

it('lets the student come there too, turns down, and takes back', function (): void {
    ($this->ask)('ask-also');
    $id = DB::table('transfer_requests')->value('id');
    ($this->as)('coordinator')
        ->postJson("/api/schools/$this->from/transfers/$id/accept")
        ->assertOk();
    expect(DB::table('people')->where('id', $this->student)->value('school_id'))
        ->toBe($this->from)
        ->and(DB::table('enrollments')->where('person_id', $this->student)->whereNull('ends_on')->count())
        ->toBe(2);
    // Their teachers print no card for a student of another school.
    $section = DB::table('sections')->where('name', '6 Tern')->value('id');
    ($this->as)('other coordinator')
        ->postJson("/api/sections/$section/cards", [
            'person_ids' => [$this->student],
            'layout' => 'cards-a4',
            'order' => 'reading',
        ])
        ->assertStatus(422);
    DB::table('transfer_requests')->update(['state' => 'waiting', 'answered_at' => null]);
    ($this->as)('coordinator')
        ->postJson("/api/schools/$this->from/transfers/$id/refuse")
        ->assertOk()
        ->assertJsonPath('requests.0.state', 'refused');
    DB::table('transfer_requests')->update(['state' => 'waiting']);
    $this->postJson("/api/schools/$this->from/transfers/$id/withdraw")->assertStatus(404);
    ($this->as)('other coordinator')
        ->postJson("/api/schools/$this->to/transfers/$id/withdraw")
        ->assertOk()
        ->assertJsonPath('requests.0.state', 'withdrawn');
});

it(
    'writes for every school of a coordinator who has several, and shows it to those only who have them too',
    function (): void {
        $ines = $this->world->people['coordinator'];
        $this->world->coordinates($ines, $this->to);
        $id = ($this->bring)(
            'coordinator',
            "Student number,Name,Birth date,Grade\n070001,Wilhelmina Seabright,2018-02-11,6\n",
            $this->to,
        );
        $question = ($this->show)($id)['questions'][0];
        expect($question['text'])->toBe('Is row 2 Wilhelmina Seabright?');
        ($this->as)('other coordinator')
            ->getJson("/api/intakes/$id")
            ->assertStatus(403);
        $this->getJson("/api/intakes/$id/rows")->assertStatus(403);
        ($this->as)('coordinator')
            ->postJson("/api/intakes/$id/answers", ['answers' => [$question['id'] => "is:$this->student:transfer"]])
            ->assertOk();
        ($this->apply)($id);
        expect(DB::table('people')->where('id', $this->student)->value('school_id'))
            ->toBe($this->to)
            ->and(DB::table('ledger_schools')->pluck('school_id')->sort()->values()->all())
            ->toBe(
                collect([$this->from, $this->to])
                    ->sort()
                    ->values()
                    ->all(),
            );
    },
);

it('keeps every plan to the people of its own school, however it was made', function (): void {
    $plan = new Vantrel\Core\Plan\PlanBuilder();
    $row = app(App\Ledger\Snapshots::class)->find(Vantrel\Core\Records\Person::class, $this->student);
    $plan->update($row, ['grade' => '04'], 'x');
    $ledger = app(App\Ledger\Ledger::class);
    expect(fn() => $ledger->apply($plan->build('x', 'x'), $this->to, null, Vantrel\Core\Plan\Action::Place))
        ->toThrow(Vantrel\Core\Plan\Refusal::class, 'records of Lanternfield Primary')
        ->and(DB::table('ledger_entries')->count())
        ->toBe(0);
    $ledger->apply($plan->build('x', 'x'), $this->to, null, Vantrel\Core\Plan\Action::Place, also: [$this->from]);
    expect(DB::table('ledger_schools')->count())->toBe(2);
    // Through what hangs on a person or a section: a card, a user name, an enrollment, a guardian.
    foreach (
        [
            [
                Vantrel\Core\Records\Entity::SignIn,
                ['person_id' => $this->student, 'user_name' => 'x', 'passphrase' => null, 'password' => null],
            ],
            [
                Vantrel\Core\Records\Entity::Badge,
                [
                    'sign_in_id' => DB::table('sign_ins')->where('person_id', $this->student)->value('id'),
                    'token_hash' => str_repeat('0', 64),
                    'state' => 'live',
                    'made_at' => now(),
                ],
            ],
            [
                Vantrel\Core\Records\Entity::Enrollment,
                [
                    'section_id' => $this->world->section,
                    'person_id' => $this->student,
                    'role' => 'student',
                    'begins_on' => '2026-01-01',
                    'ends_on' => null,
                    'source' => 'hand',
                ],
            ],
            [
                Vantrel\Core\Records\Entity::Guardianship,
                [
                    'student_id' => $this->student,
                    'guardian_id' => $this->world->people['guardian'],
                    'state' => 'listed',
                ],
            ],
            [
                Vantrel\Core\Records\Entity::Coordinator,
                ['person_id' => $this->world->people['lead'], 'school_id' => $this->from, 'state' => 'active'],
            ],
        ]
        as [$entity, $values]
    ) {
        $builder = new Vantrel\Core\Plan\PlanBuilder();
        $builder->insert($entity, (string) Illuminate\Support\Str::ulid(), $values, 'x');
        expect(
            fn() => $ledger->apply($builder->build('x', 'x'), $this->to, null, Vantrel\Core\Plan\Action::Place),
        )->toThrow(Vantrel\Core\Plan\Refusal::class, 'records of Lanternfield Primary');
    }
});
