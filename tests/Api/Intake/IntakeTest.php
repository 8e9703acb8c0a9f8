<?php

declare(strict_types=1);

use App\Intake\Jobs\ApplyIntake;
use App\Models\Intake;
use App\Models\IntakeState;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\Support\World;

beforeEach(function (): void {
    $this->world = World::make();
    $this->as = $this->actingAs($this->world->as('coordinator'));
    $this->bring = fn(string $csv, string $name = 'list.csv') => $this->as->post(
        "/api/schools/{$this->world->school}/intakes",
        ['file' => UploadedFile::fake()->createWithContent($name, $csv)],
        ['Accept' => 'application/json'],
    );
});

const NEW_LIST =
    "No,Name,Grade,Homeroom,Guardian,Guardian email\n" .
    "020001,Wilhelmina Seabright,4,3 Plover,Hélène Marchetti,helene@shoremail.example\n" .
    "020002,Noor Haddad,3,3 Heron,Ann Haddad,ann@shoremail.example\n" .
    "020003,Amal Haddad,3,3 Wren,Ann Haddad,ann@shoremail.example\n020004,Kai Wu,99,3 Heron,,\n";

it('plans, applies and undoes a list, byte for byte', function (): void {
    $before = World::checksum();
    $list = ($this->bring)(NEW_LIST)->assertOk();
    $id = $list->json('id');
    $plan = $this->as->getJson("/api/intakes/$id")->assertOk();
    expect($plan->json('state'))
        ->toBe('planned')
        ->and($plan->json('verdicts'))
        ->toBe(['new' => 2, 'update' => 1, 'same' => 0, 'ask' => 0, 'cannot' => 1])
        ->and($plan->json('sentence'))
        ->toBe('Apply adds 2 students and 1 guardian, updates 1 student, moves 1 and makes 1 section. 1 is left out.')
        ->and(World::checksum())
        ->toBe($before);
    $this->as
        ->getJson("/api/intakes/$id/rows?verdict=cannot")
        ->assertJsonCount(1, 'rows')
        ->assertJsonPath('rows.0.problems.0.column', 'Grade');
    $applied = $this->as->postJson("/api/intakes/$id/apply", ['fingerprint' => $plan->json('fingerprint')])->assertOk();
    expect($applied->json('state'))->toBe('applied');
    $this->as
        ->getJson("/api/schools/{$this->world->school}/people?kind=student&q=haddad")
        ->assertJsonPath('total', 2)
        ->assertJsonPath('people.1.sections', '3 Heron');
    expect(
        DB::table('guardianships')
            ->whereIn('student_id', DB::table('people')->where('family_name', 'Haddad')->pluck('id'))
            ->distinct()
            ->count('guardian_id'),
    )->toBe(1);
    $this->as
        ->postJson('/api/ledger/' . $applied->json('entryId') . '/undo')
        ->assertOk()
        ->assertJsonPath('kept', []);
    expect(World::checksum())->toBe($before);
    // The list is a plan again, and the same one can be applied again.
    $again = $this->as->getJson("/api/intakes/$id");
    expect($again->json('state'))->toBe('planned')->and($again->json('verdicts.new'))->toBe(2);
    $this->as
        ->postJson("/api/intakes/$id/apply", ['fingerprint' => $again->json('fingerprint')])
        ->assertJsonPath('state', 'applied');
});

it('makes an empty plan of a list that was applied before', function (): void {
    $first = ($this->bring)(NEW_LIST)->json('id');
    $this->as
        ->postJson("/api/intakes/$first/apply", ['fingerprint' => Intake::query()->findOrFail($first)->fingerprint])
        ->assertOk();
    $second = $this->as->getJson('/api/intakes/' . ($this->bring)(NEW_LIST)->json('id'));
    expect($second->json('verdicts'))
        ->toBe(['new' => 0, 'update' => 0, 'same' => 3, 'ask' => 0, 'cannot' => 1])
        ->and($second->json('changes'))
        ->toBe(0);
});

it('plans anew when a column is named otherwise or names are turned round', function (): void {
    $id = ($this->bring)("Name,Grade,Class\nHaddad Noor,3,3 Heron\n")->json('id');
    expect($this->as->getJson("/api/intakes/$id/rows")->json('rows.0.cells.Name.after'))->toBe('Haddad Noor');
    $this->as->postJson("/api/intakes/$id/answers", ['answers' => ['t0.names' => 'family']])->assertOk();
    expect($this->as->getJson("/api/intakes/$id/rows")->json('rows.0.cells.Name.after'))->toBe('Noor Haddad');
    $this->as->postJson("/api/intakes/$id/answers", ['answers' => ['t0.c2' => 'homeroom', 't0.c1' => '-']])->assertOk();
    expect(array_column($this->as->getJson("/api/intakes/$id")->json('sheets.0.columns'), 'field'))->toBe([
        'full_name',
        null,
        'homeroom',
    ]);
    $this->as->postJson("/api/intakes/$id/answers", ['answers' => ['t0.c2' => 'shoe_size']])->assertStatus(422);
});

it('keeps answers, and takes one back', function (): void {
    $id = ($this->bring)("Name,Grade,Homeroom\nNoor Haddad,3,3 Herom\n")->json('id');
    $question = $this->as->getJson("/api/intakes/$id")->json('questions.0');
    expect($question['choices'][0]['key'])->toBe('use');
    $this->as->postJson("/api/intakes/$id/answers", ['answers' => [$question['id'] => 'use']])->assertOk();
    expect($this->as->getJson("/api/intakes/$id")->json('verdicts.new'))->toBe(1);
    $this->as->postJson("/api/intakes/$id/answers", ['answers' => [$question['id'] => null]])->assertOk();
    expect($this->as->getJson("/api/intakes/$id")->json('verdicts.ask'))->toBe(1);
});

it('applies only the plan that was looked at', function (): void {
    $id = ($this->bring)(NEW_LIST)->json('id');
    $this->as
        ->postJson("/api/intakes/$id/apply", ['fingerprint' => str_repeat('0', 64)])
        ->assertStatus(409)
        ->assertJsonPath('title', 'Changed since you looked');
    expect(DB::table('people')->where('family_name', 'Haddad')->exists())->toBeFalse();
});

it('plans anew, and says so, when the people changed between looking and applying', function (): void {
    $id = ($this->bring)(NEW_LIST)->json('id');
    $fingerprint = Intake::query()->findOrFail($id)->fingerprint;
    DB::table('people')
        ->where('id', $this->world->people['student'])
        ->update(['grade' => '02', 'version' => 99]);
    $this->as->postJson("/api/intakes/$id/apply", ['fingerprint' => $fingerprint])->assertOk();
    $fresh = $this->as->getJson("/api/intakes/$id");
    expect($fresh->json('state'))
        ->toBe('planned')
        ->and($fresh->json('message'))
        ->toContain('Nothing was written')
        ->and($fresh->json('fingerprint'))
        ->not->toBe($fingerprint)
        ->and(DB::table('people')->where('family_name', 'Haddad')->exists())
        ->toBeFalse();
});

it('lets one of two coordinators win, and shows the other a fresh plan', function (): void {
    $one = ($this->bring)(NEW_LIST)->json('id');
    $two = ($this->bring)(NEW_LIST)->json('id');
    [$first, $second] = [
        Intake::query()->findOrFail($one)->fingerprint,
        Intake::query()->findOrFail($two)->fingerprint,
    ];
    $this->as->postJson("/api/intakes/$one/apply", ['fingerprint' => $first])->assertJsonPath('state', 'applied');
    $this->as->postJson("/api/intakes/$two/apply", ['fingerprint' => $second])->assertOk();
    expect(Intake::query()->findOrFail($two)->state)
        ->toBe(IntakeState::Planned)
        ->and(Intake::query()->findOrFail($two)->message)
        ->toContain('fresh plan')
        ->and(DB::table('people')->where('family_name', 'Haddad')->where('kind', 'student')->count())
        ->toBe(2);
});

it('runs the job again without doing anything twice', function (): void {
    $id = ($this->bring)(NEW_LIST)->json('id');
    $intake = Intake::query()->findOrFail($id);
    $this->as->postJson("/api/intakes/$id/apply", ['fingerprint' => $intake->fingerprint]);
    $people = DB::table('people')->count();
    DB::table('imports')
        ->where('id', $id)
        ->update(['state' => 'applying']);
    ApplyIntake::dispatchSync($id, $intake->round, (string) $intake->fingerprint, null);
    expect(DB::table('people')->count())
        ->toBe($people)
        ->and(DB::table('ledger_entries')->where('action', 'intake')->count())
        ->toBe(1);
});

it('tells the person when a job failed for good, and lets them try again', function (): void {
    $id = ($this->bring)(NEW_LIST)->json('id');
    $intake = Intake::query()->findOrFail($id);
    DB::table('imports')
        ->where('id', $id)
        ->update(['state' => 'applying']);
    (new ApplyIntake($id, $intake->round, (string) $intake->fingerprint, null))->failed(null);
    expect(Intake::query()->findOrFail($id)->message)
        ->toContain('nothing of it was written')
        ->and(Intake::query()->findOrFail($id)->state)
        ->toBe(IntakeState::Planned);
});

it('does not start two jobs for two clicks', function (): void {
    $id = ($this->bring)(NEW_LIST)->json('id');
    $fingerprint = Intake::query()->findOrFail($id)->fingerprint;
    Queue::fake();
    $this->as->postJson("/api/intakes/$id/apply", ['fingerprint' => $fingerprint])->assertOk();
    $this->as->postJson("/api/intakes/$id/apply", ['fingerprint' => $fingerprint])->assertStatus(422);
    Queue::assertPushed(ApplyIntake::class, 1);
});

it('throws a list away with its file, but not one that was applied', function (): void {
    $id = ($this->bring)(NEW_LIST)->json('id');
    $file = App\Intake\ListFiles::path(Intake::query()->findOrFail($id)->files[0]['file']);
    expect(is_file($file))->toBeTrue();
    $this->as->deleteJson("/api/intakes/$id")->assertNoContent();
    expect(is_file($file))->toBeFalse();
    $this->as->getJson("/api/schools/{$this->world->school}/intakes")->assertJsonCount(0, 'intakes');
    $other = ($this->bring)(NEW_LIST)->json('id');
    $this->as->postJson("/api/intakes/$other/apply", [
        'fingerprint' => Intake::query()->findOrFail($other)->fingerprint,
    ]);
    $this->as->deleteJson("/api/intakes/$other")->assertStatus(422);
});

it('takes a hostile file name for what it is', function (): void {
    $list = ($this->bring)(NEW_LIST, '..\\..\\<script>alert(1)</script>.csv');
    expect($list->json('title'))
        ->not->toContain('<')
        ->and(Intake::query()->findOrFail($list->json('id'))->files[0]['file'])
        ->toMatch('/^[0-9a-z]{26}\.list$/');
});
