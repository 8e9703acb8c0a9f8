<?php

declare(strict_types=1);

use App\Intake\Files\ListFile;
use App\Intake\ListFiles;
use App\Models\Intake;
use Illuminate\Http\UploadedFile;
use Tests\Support\Lists;
use Tests\Support\Unaccounted;
use Tests\Support\World;
use Vantrel\Core\Intake\SchoolFacts;

beforeEach(function (): void {
    $this->world = World::make();
    $this->as = $this->actingAs($this->world->as('coordinator'));
    $this->bring = fn(string $csv): string => (string) $this->as
        ->post(
            "/api/schools/{$this->world->school}/intakes",
            ['file' => UploadedFile::fake()->createWithContent('list.csv', $csv)],
            ['Accept' => 'application/json'],
        )
        ->assertOk()
        ->json('id');
    $this->sheet = fn(string $id, string $more = '') => $this->as->getJson("/api/intakes/$id/sheet$more")->assertOk();
    $this->say = fn(string $id, array $answers) => $this->as
        ->postJson("/api/intakes/$id/answers", ['answers' => $answers])
        ->assertOk();
});

it('shows the sheet cell for cell, with what was made of each', function (): void {
    $id = ($this->bring)("Our class\nName,Grade,Locker\n\"QUILL, ADA\",3,L1\n\"Wu, Kai\",Mars,\n");
    $sheet = ($this->sheet)($id);
    expect($sheet->json('sheets'))
        ->toBe([['label' => '', 'rows' => 4, 'width' => 3]])
        ->and($sheet->json('next'))
        ->toBeNull()
        ->and($sheet->json('rows.0.part'))
        ->toBe('title')
        ->and($sheet->json('rows.2.cells'))
        ->toBe([
            ['text' => 'QUILL, ADA', 'fate' => 'mended', 'note' => 'read as “Quill, Ada” (capitals)'],
            ['text' => '3', 'fate' => 'read', 'note' => 'grade'],
            ['text' => 'L1', 'fate' => 'left', 'note' => 'left out: nothing says what its column holds'],
        ])
        ->and($sheet->json('rows.2.read'))
        ->toBe(['Ada | Quill, grade 3'])
        ->and($sheet->json('rows.3.cells.1.fate'))
        ->toBe('asked')
        ->and($sheet->json('rows.3.cells.1.note'))
        ->toContain('is not a grade');
});

it('reads the list anew as it is told, and forgets what was said of columns that are others now', function (): void {
    $id = ($this->bring)("Name,Grade,Code\nPupil,Year,Homeroom\n\"Quill, Ada\",3,3 Heron\n");
    ($this->say)($id, ['t0.c2' => 'homeroom']);
    ($this->say)($id, ['s0.header' => '2']);
    $intake = Intake::query()->findOrFail($id);
    expect($intake->answers)
        ->toBe(['s0.header' => '2'])
        ->and(($this->sheet)($id)->json('rows.1.part'))
        ->toBe('header')
        ->and(($this->sheet)($id)->json('rows.2.read.0'))
        ->toBe('Ada | Quill, grade 3, in 3 Heron')
        ->and($this->as->getJson("/api/intakes/$id")->json('said'))
        ->toBe(['s0.header']);
    ($this->say)($id, ['s0.r3' => 'skip']);
    expect(Intake::query()->findOrFail($id)->state->value)
        ->toBe('unreadable')
        ->and(($this->sheet)($id)->json('rows.2.part'))
        ->toBe('skipped');
    // What was said is taken back, and the plan is what it was.
    ($this->say)($id, ['s0.r3' => null]);
    expect($this->as->getJson("/api/intakes/$id")->json('verdicts.new'))->toBe(1);
    foreach (['s0.header' => 'last', 's0.r3' => 'gone', 's0.beside' => 'x', 's0.hidden' => 'show'] as $key => $answer) {
        $this->as->postJson("/api/intakes/$id/answers", ['answers' => [$key => $answer]])->assertStatus(422);
    }
});

it('shows a sheet of which nothing could be read, so that its header can be said', function (): void {
    $id = ($this->bring)("Wer,Wo\n\"Quill, Ada\",links\n\"Wu, Kai\",rechts\n");
    $kept = ($this->sheet)($id);
    expect($kept->json('rows.1.cells.0.text'))->toBe('Quill, Ada');
    ($this->say)($id, ['s0.header' => '1', 't0.c0' => 'full_name']);
    expect($this->as->getJson("/api/intakes/$id")->json('verdicts.new'))->toBe(2);
});

it('gives a long sheet page by page, and keeps the picture no longer than the list', function (): void {
    $rows = implode(
        "\n",
        array_map(fn(int $i): string => sprintf('%06d,Pupil%s Quill,3', $i, chr(65 + ($i % 26))), range(1, 450)),
    );
    $id = ($this->bring)("No,Name,Grade\n$rows\n");
    $first = ($this->sheet)($id);
    $last = ($this->sheet)($id, '?after=400');
    expect($first->json('next'))
        ->toBe(200)
        ->and(count($first->json('rows')))
        ->toBe(200)
        ->and($last->json('rows.0.number'))
        ->toBe(401)
        ->and(count($last->json('rows')))
        ->toBe(51)
        ->and($last->json('next'))
        ->toBeNull();
    $this->as->getJson("/api/intakes/$id/sheet?sheet=7")->assertStatus(422);
    $path = ListFiles::path(Intake::query()->findOrFail($id)->files[0]['file']);
    expect(glob("$path.picture-*"))->toHaveCount(1);
    ($this->say)($id, ['s0.r2' => 'skip']);
    expect(glob("$path.picture-*"))
        ->toHaveCount(1)
        ->and(fileperms(glob("$path.picture-*")[0]) & 0777)
        ->toBe(0600);
    $this->as->deleteJson("/api/intakes/$id")->assertNoContent();
    expect(glob("$path*"))->toBe([]);
});

it('accounts for every cell of the demo’s lists', function (): void {
    $wrong = [];
    foreach (glob(base_path('demo/*.{xlsx,ods,csv,txt,zip}'), GLOB_BRACE) ?: [] as $path) {
        $book = Lists::book(
            ListFile::sheets($path, basename($path), 'Copperbrook', 'copperbrook'),
            [],
            new SchoolFacts('Lanternfield Primary', 'primary', 'US'),
        );
        $wrong = [...$wrong, ...Unaccounted::of($book, basename($path))];
    }
    expect(array_slice($wrong, 0, 10))->toBe([]);
});
