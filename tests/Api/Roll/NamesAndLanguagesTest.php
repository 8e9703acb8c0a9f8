<?php

declare(strict_types=1);

use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;

// What somebody goes by, what their family reads, and how much of a name others see: from a list, by hand, for many.

beforeEach(function (): void {
    readyToUndo($this);
    $this->bring = function (string $csv): void {
        $id = $this->post(
            "/api/schools/{$this->world->school}/intakes",
            ['files' => [UploadedFile::fake()->createWithContent('list.csv', $csv)]],
            ['Accept' => 'application/json'],
        )
            ->assertOk()
            ->json('id');
        $this->postJson("/api/intakes/$id/apply", [
            'fingerprint' => $this->getJson("/api/intakes/$id")->json('fingerprint'),
        ])->assertOk();
    };
    $this->of = fn(string $number): object => DB::table('people as p')
        ->join('sign_ins as i', 'i.person_id', '=', 'p.id')
        ->where('p.number', $number)
        ->first(['p.id', 'p.given_name', 'p.preferred_name', 'p.language', 'p.name_shown', 'i.user_name']);
});

it('come with a list, and stay where the next one says nothing', function (): void {
    ($this->bring)(
        "Number,First name,Last name,Preferred name,Home language,Grade\n040101,Adelaide,Quill,Addie,Spanish,3\n",
    );
    expect(($this->of)('040101'))
        ->preferred_name->toBe('Addie')
        ->language->toBe('es')
        ->user_name->toBe('adelaide.quill');
    ($this->bring)("Number,First name,Last name,Grade\n040101,Adelaide,Quill,4\n");
    expect(($this->of)('040101'))->preferred_name->toBe('Addie')->language->toBe('es');
    ($this->bring)("Number,First name,Last name,Preferred name,Grade\n040101,Adelaide,Quill,Adelaide,4\n");
    expect(($this->of)('040101')->preferred_name)->toBe('Addie');
});

it('make user names only where the school says so', function (): void {
    $this->postJson("/api/schools/{$this->world->school}/settings", ['user_names_from' => 'preferred'])->assertOk();
    ($this->bring)(
        "Number,First name,Last name,Preferred name,Grade\n040101,Adelaide,Quill,Addie,3\n040102,Kai,Wu,,3\n",
    );
    expect(($this->of)('040101'))
        ->user_name->toBe('addie.quill')
        ->given_name->toBe('Adelaide')
        ->and(($this->of)('040102')->user_name)
        ->toBe('kai.wu');
    $this->postJson("/api/schools/{$this->world->school}/settings", [
        'user_names_from' => 'nickname',
    ])->assertUnprocessable();
});

it('are changed by hand, and refused where they are nothing', function (): void {
    $student = $this->world->people['student'];
    $edit = fn(array $body) => $this->postJson("/api/people/$student", [
        'version' => $this->getJson("/api/people/$student")->json('version'),
        ...$body,
    ]);
    $edit(['language' => 'vi', 'name_shown' => 'initial'])->assertOk();
    $this->getJson("/api/people/$student")
        ->assertJsonPath('language', 'vi')
        ->assertJsonPath('languageName', 'Vietnamese')
        ->assertJsonPath('nameShown', 'initial');
    $edit(['language' => 'Elvish'])
        ->assertUnprocessable()
        ->assertJsonValidationErrors('language');
    $edit(['name_shown' => 'none'])->assertUnprocessable();
    $edit(['language' => '', 'name_shown' => ''])->assertOk();
    $this->getJson("/api/people/$student")
        ->assertJsonPath('language', '')
        ->assertJsonPath('nameShown', null);
    $languages = $this->getJson('/api/languages')->assertOk()->json('languages');
    expect($languages[0])->toBe(['code' => 'en', 'name' => 'English', 'written' => true]);
});

it('are changed for many, and back', function (): void {
    $before = World::checksum();
    $wish = ['people' => [$this->world->people['student']], 'what' => 'language', 'language' => 'uk'];
    $uri = "/api/schools/{$this->world->school}/people/change";
    $plan = $this->postJson("$uri/plan", $wish)->assertOk();
    expect($plan->json('sentence'))->toBe('Notes that the families of 1 student are written to in Ukrainian.');
    $this->postJson($uri, [
        ...$wish,
        'fingerprint' => $plan->json('fingerprint'),
        'seed' => $plan->json('seed'),
    ])->assertOk();
    expect(DB::table('people')->where('id', $this->world->people['student'])->value('language'))->toBe('uk');
    $this->postJson("$uri/plan", [...$wish, 'language' => 'xx'])->assertUnprocessable();
    $shown = $this->postJson("$uri/plan", [...$wish, 'what' => 'shown', 'shown' => 'initial'])->assertOk();
    expect($shown->json('rows.0.cells.Name shown.after'))->toBe('with the family name as a letter');
    undoAll($this, $before);
});

/** Undoes the newest entry, and finds every table as it was. */
function undoAll(object $test, array $before): void
{
    $entry = (string) DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $test->postJson("/api/ledger/$entry/undo")->assertOk();
    expect(World::checksum())->toBe($before);
}

it('show on cards as much of a name as was decided', function (): void {
    $print = function (): string {
        $print = $this->postJson("/api/schools/{$this->world->school}/cards", [
            'section_ids' => [$this->world->section],
            'layout' => 'cards-a4',
            'order' => 'reading',
        ])
            ->assertOk()
            ->json('id');
        $pdf = (string) $this->getJson("/api/prints/$print/file")->getContent();
        $file = tempnam(sys_get_temp_dir(), 'card');
        file_put_contents($file, $pdf);
        $text = (string) shell_exec('pdftotext ' . escapeshellarg($file) . ' -');
        unlink($file);

        return $text;
    };
    expect($print())->toContain('Wilhelmina Seabright');
    DB::table('schools')
        ->where('id', $this->world->school)
        ->update(['name_shown' => 'initial']);
    expect($print())->toContain('Wilhelmina S.')->not->toContain('Seabright');
    DB::table('people')
        ->where('id', $this->world->people['student'])
        ->update(['name_shown' => 'full']);
    expect($print())->toContain('Wilhelmina Seabright');
});

it('come with a card for whoever is chosen, in a section or in none, and with a new passphrase', function (): void {
    $unplaced = $this->world->student('Marlo Quill', null, ['number' => '049999'], 'maple otter candy');
    $elsewhere = $this->world->person($this->world->otherSchool, 'student', 'Bo Marsh');
    $print = fn(array $wish) => $this->postJson("/api/schools/{$this->world->school}/cards", [
        'layout' => 'cards-a4',
        'order' => 'reading',
        ...$wish,
    ]);
    $passphrase = fn(): string => (string) DB::table('sign_ins')->where('person_id', $unplaced)->value('passphrase');
    $before = $passphrase();
    $print(['person_ids' => [$unplaced, $this->world->people['student'], $elsewhere], 'lost' => true])->assertOk();
    expect($passphrase())
        ->not->toBe($before)
        ->and(DB::table('ledger_entries')->orderByDesc('seq')->value('title'))
        ->toContain('2 students')
        ->and(DB::table('badges')->count())
        ->toBe(2);
    $print(['person_ids' => [$elsewhere]])->assertUnprocessable();
    $print(['person_ids' => []])->assertUnprocessable();
    $print([])->assertUnprocessable();
});
