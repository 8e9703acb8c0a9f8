<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

beforeEach(fn() => readyForLists($this));

it(
    'reads a list as everyone: shows who leaves, wants words past the trip-wire and the password, and undoes it whole',
    function (): void {
        manyStudents($this->world, 30);
        $before = World::checksum();
        $id = ($this->csv)("Student number,Name\n020001,Wilhelmina Seabright\n030000,Pupilaa Familya\n")['id'];
        expect(($this->show)($id)['leaving'])->toBe(0);
        $this->as->postJson("/api/intakes/$id/everyone", ['everyone' => 'school'])->assertOk();
        $list = ($this->show)($id);
        expect($list['leaving'])
            ->toBe(29)
            ->and($list['words'])
            ->toBe('29 leave')
            ->and($list['blockers'][0])
            ->toContain('29 of 31')
            ->toContain('“29 leave”')
            ->and(($this->rows)($id, 'leaving'))
            ->toHaveCount(29)
            ->and($list['sentence'])
            ->toContain('marks 29 students as having left');
        ($this->apply)($id)->assertStatus(422);
        $this->as->postJson("/api/intakes/$id/everyone", ['everyone' => 'school', 'words' => '28 leave'])->assertOk();
        expect(($this->show)($id)['blockers'])->not->toBe([]);
        $this->as->postJson("/api/intakes/$id/everyone", ['everyone' => 'school', 'words' => '29 leave'])->assertOk();
        expect(($this->show)($id)['blockers'])->toBe([])->and(($this->show)($id)['confirmed'])->toBeTrue();
        ($this->apply)($id)
            ->assertStatus(422)
            ->assertJsonPath('errors.password.0', fn(string $m): bool => str_contains($m, 'password'));
        ($this->apply)($id, ['password' => 'not this one'])->assertStatus(422);
        expect(World::checksum())->toBe($before);
        ($this->apply)($id, ['password' => 'lantern harbor morning'])->assertOk();
        expect(DB::table('people')->where('state', 'left')->count())
            ->toBe(29)
            ->and(DB::table('enrollments')->where('role', 'student')->whereNull('ends_on')->count())
            ->toBe(2);
        $entry = ($this->show)($id)['entryId'];
        $this->as->postJson("/api/ledger/$entry/undo")->assertOk();
        expect(World::checksum())->toBe($before);
    },
);

it(
    'takes students out of one section only when a list is everyone of it, and keeps those whose rows wait',
    function (): void {
        $kai = $this->world->student('Kai Wu', $this->world->section, ['number' => '020002', 'grade' => '03']);
        $mei = $this->world->student('Mei Chen', $this->world->section, ['number' => '020003', 'grade' => '03']);
        $id = ($this->csv)("Student number,Name,Grade\n020001,Wilhelmina Seabright,3\n020003,Mei Chen,not a grade\n")[
            'id'
        ];
        $this->as->postJson("/api/intakes/$id/everyone", ['everyone' => "section:{$this->world->section}"])->assertOk();
        expect(array_column(($this->rows)($id, 'leaving'), 'matchId'))
            ->toBe([$kai])
            ->and(($this->show)($id)['sentence'])
            ->toContain('out of the section');
        $this->as
            ->postJson("/api/intakes/$id/everyone", ['everyone' => 'section:' . str_repeat('0', 26)])
            ->assertStatus(422);
        $this->as->postJson("/api/intakes/$id/everyone", ['everyone' => 'grade:nine'])->assertStatus(422);
        ($this->apply)($id, ['password' => 'lantern harbor morning'])->assertOk();
        expect(DB::table('people')->where('id', $kai)->value('state'))
            ->toBe('active')
            ->and(DB::table('enrollments')->where('person_id', $kai)->whereNull('ends_on')->exists())
            ->toBeFalse()
            ->and(DB::table('enrollments')->where('person_id', $mei)->whereNull('ends_on')->exists())
            ->toBeTrue();
    },
);

it('lets one of two coordinators win and shows the other what changed, with a fresh plan', function (): void {
    $csv = "Student number,Name,Grade\n020001,Wilhelmina Seabright,";
    $mine = ($this->csv)($csv . "4\n")['id'];
    $theirs = ($this->csv)($csv . "5\n")['id'];
    $seen = ($this->show)($theirs)['fingerprint'];
    ($this->apply)($mine)->assertOk();
    $this->as->postJson("/api/intakes/$theirs/apply", ['fingerprint' => $seen])->assertOk();
    $list = ($this->show)($theirs);
    expect($list['state'])
        ->toBe('planned')
        ->and($list['message'])
        ->toContain('Since you looked')
        ->and($list['fingerprint'])
        ->not->toBe($seen)
        ->and(DB::table('people')->where('number', '020001')->value('grade'))
        ->toBe('04')
        ->and(($this->rows)($theirs)[0]['cells']['Grade'])
        ->toBe(['before' => '4', 'after' => '5']);
});

it('brings in staff and sections, and tells a second lead from the first', function (): void {
    $id = ($this->bring)([
        'files' => [
            UploadedFile::fake()->createWithContent(
                'sections.csv',
                "Class,Teacher,Teacher email,Grade\nArt 3,Petra Okonjo,petra.okonjo@lanternfield.example,3\n" .
                    "3 Heron,Ruben Aske,ruben.aske@lanternfield.example,\n",
            ),
            UploadedFile::fake()->createWithContent(
                'staff.csv',
                "Staff name,Email,Role,Classes\nNew Person,new.person@lanternfield.example,Aide,Art 3\n" .
                    "No Mail,,Teacher,\nHélène Marchetti,helene@shoremail.example,Teacher,\n",
            ),
        ],
    ])['id'];
    expect(array_map(fn(array $r): array => [$r['sheet'], $r['number'], $r['verdict']], ($this->rows)($id)))->toBe([
        ['sections', 2, 'new'],
        ['sections', 3, 'update'],
        ['staff', 2, 'new'],
        ['staff', 3, 'cannot'],
        ['staff', 4, 'cannot'],
    ]);
    ($this->apply)($id)->assertOk();
    $roles = fn(string $name): array => DB::table('enrollments as e')
        ->join('sections as s', 's.id', '=', 'e.section_id')
        ->join('people as p', 'p.id', '=', 'e.person_id')
        ->where('s.name', $name)
        ->where('e.role', '!=', 'student')
        ->whereNull('e.ends_on')
        ->orderBy('p.given_name')
        ->pluck('e.role', 'p.given_name')
        ->all();
    expect($roles('Art 3'))
        ->toBe(['New' => 'assistant', 'Petra' => 'lead'])
        ->and($roles('3 Heron')['Ruben'])
        ->toBe('co_teacher')
        ->and($roles('3 Heron')['Petra'])
        ->toBe('lead')
        ->and(DB::table('sign_ins')->where('user_name', 'new.person@lanternfield.example')->exists())
        ->toBeTrue();
    expect(
        ($this->show)(
            ($this->bring)([
                'files' => [
                    UploadedFile::fake()->createWithContent(
                        'sections.csv',
                        "Class,Teacher,Teacher email,Grade\nArt 3,Petra Okonjo,petra.okonjo@lanternfield.example,3\n",
                    ),
                ],
            ])['id'],
        )['changes'],
    )->toBe(0);
});
