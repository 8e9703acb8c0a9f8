<?php

declare(strict_types=1);

use App\Models\PrintRun;
use App\PrintRoom\FamilyCodes;
use App\PrintRoom\PrintRuns;
use Illuminate\Support\Facades\DB;
use Tests\Support\World;
use Vantrel\Core\Codes\CodeSymbols;

beforeEach(function (): void {
    $this->world = World::make();
    $this->noor = $this->world->student('Noor Haddad', $this->world->section);
    $this->kai = $this->world->student('Kai Wu', $this->world->section);
    $this->school = "/api/schools/{$this->world->school}";
    $this->actingAs($this->world->as('coordinator'));
    $this->letters = fn(array $wish = []) => $this->postJson("$this->school/letters", [
        'kind' => 'family',
        'section_ids' => [$this->world->section],
        ...$wish,
    ]);
    $this->text = function (string $id): string {
        $file = scratch() . '/l.pdf';
        file_put_contents($file, app(PrintRuns::class)->file(PrintRun::query()->findOrFail($id)));

        return outside(['pdftotext', '-raw', $file, '-']);
    };
});

it('writes each family in its language: of the child, of a guardian, or the one for all others', function (): void {
    DB::table('people')
        ->where('id', $this->noor)
        ->update(['language' => 'es']);
    DB::table('people')
        ->where('id', $this->kai)
        ->update(['language' => 'am']);
    $guardian = $this->world->people['guardian'];
    DB::table('people')
        ->where('id', $guardian)
        ->update(['language' => 'uk']);
    DB::table('guardianships')
        ->where('guardian_id', $guardian)
        ->update(['student_id' => $this->world->people['student']]);
    $counts = $this->postJson("$this->school/letters/counts", [
        'kind' => 'family',
        'section_ids' => [$this->world->section],
        'otherwise' => 'fr',
    ])
        ->assertOk()
        ->json();
    expect(array_column($counts['languages'], 'letters', 'language'))->toEqual(['es' => 1, 'fr' => 1, 'uk' => 1]);
    $text = ($this->text)(
        ($this->letters)(['otherwise' => 'fr'])
            ->assertOk()
            ->json('id'),
    );
    expect($text)
        ->toContain('A la familia de Noor Haddad')
        ->toContain('À la famille de Kai Wu')
        ->toContain('Родині: Wilhelmina Seabright');
    $all = ($this->text)(
        ($this->letters)(['language' => 'vi'])
            ->assertOk()
            ->json('id'),
    );
    expect(substr_count($all, 'Kính gửi gia đình em'))->toBe(3)->and($all)->not->toContain('familia');
});

it('gives each letter a code that is kept as a hash only, and a slip of its own', function (): void {
    $text = ($this->text)(($this->letters)()->assertOk()->json('id'));
    preg_match_all('/^[A-Z0-9]{3}-[A-Z0-9]{4}-[A-Z0-9]{3}$/m', $text, $codes);
    preg_match_all('/^[A-Z0-9]{3}-[A-Z0-9]{4}$/m', $text, $slips);
    expect(array_unique($codes[0]))->toHaveCount(3)->and(array_unique($slips[0]))->toHaveCount(3);
    $kept = DB::table('family_letters')->pluck('token_hash')->all();
    foreach ($codes[0] as $code) {
        $symbols = CodeSymbols::parse($code);
        expect($kept)->toContain(FamilyCodes::hash($symbols))->not->toContain(hash('sha256', $symbols->symbols));
        foreach (['family_letters', 'ledger_changes', 'ledger_entries', 'print_runs', 'jobs'] as $table) {
            expect(json_encode(DB::table($table)->get(), JSON_INVALID_UTF8_SUBSTITUTE))->not->toContain(
                $symbols->symbols,
            );
        }
    }
});

it('ticks off a slip by its code, once, and lists those that are out', function (): void {
    $text = ($this->text)(($this->letters)()->assertOk()->json('id'));
    $this->getJson("$this->school/slips")->assertJson(['out' => 3, 'back' => 0]);
    $slip = CodeSymbols::parse(
        (string) DB::table('family_letters')->where('student_id', $this->noor)->value('slip'),
    )->written();
    expect($text)->toContain($slip);
    // As a scanner types it, and as somebody does who looks at another line.
    $this->postJson("$this->school/slips", ['slip' => ' ' . strtolower(str_replace('-', ' ', $slip))])
        ->assertOk()
        ->assertJsonPath('name', 'Noor Haddad');
    $this->postJson("$this->school/slips", ['slip' => $slip])
        ->assertStatus(422)
        ->assertJsonPath('errors.slip.0', 'The slip of Noor Haddad is ticked off already.');
    $this->postJson("$this->school/slips", ['slip' => 'maple otter'])->assertStatus(422);
    preg_match('/^[A-Z0-9]{3}-[A-Z0-9]{4}-[A-Z0-9]{3}$/m', $text, $code);
    $this->postJson("$this->school/slips", ['slip' => $code[0]])
        ->assertStatus(422)
        ->assertJsonPath('errors.slip.0', fn(string $said): bool => str_contains($said, 'family code'));
    $list = $this->getJson("$this->school/slips")
        ->assertJson(['out' => 2, 'back' => 1])
        ->json('students');
    expect($list[2])
        ->toMatchArray(['name' => 'Noor Haddad', 'sections' => '3 Heron'])
        ->and($list[0]['returnedAt'])
        ->toBeNull();
    // Those whose slip is out get another letter; that one came back is not among them.
    $again = ($this->text)(
        ($this->letters)(['printed' => 'slip_out'])
            ->assertOk()
            ->json('id'),
    );
    expect($again)->toContain('Kai Wu')->not->toContain('Noor Haddad');
    // Undone, it is out again.
    $entry = DB::table('ledger_entries')->orderByDesc('seq')->where('action', 'slip')->value('id');
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    $this->getJson("$this->school/slips")->assertJson(['out' => 3, 'back' => 0]);
});

it('does not know the slips of another school', function (): void {
    ($this->letters)()->assertOk();
    $slip = (string) DB::table('family_letters')->value('slip');
    $this->actingAs($this->world->as('other coordinator'))
        ->postJson("/api/schools/{$this->world->otherSchool}/slips", ['slip' => $slip])
        ->assertStatus(422)
        ->assertJsonPath('errors.slip.0', 'There is no slip with this code at this school.');
    $this->getJson("/api/schools/{$this->world->otherSchool}/slips")->assertJson(['out' => 0, 'back' => 0]);
});

it('lets the school write its own words, and asks for them in every language that is printed', function (): void {
    $write = fn(string $language, array $texts) => $this->postJson("$this->school/letters/wording", [
        'kind' => 'family',
        'language' => $language,
        'texts' => $texts,
    ]);
    $write('en', ['note' => 'The office is open from {hours}.'])
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_contains($said, '{hours}'));
    $write('en', ['new_1' => 'Ask at the office.'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'Leave {address} in: without it nobody finds the way in.');
    $write('en', ['note' => 'The office of {school} is open until four.'])
        ->assertOk()
        ->assertJsonPath('lacking', ['es', 'fr', 'ar', 'vi', 'uk', 'zh']);
    DB::table('people')
        ->where('id', $this->noor)
        ->update(['language' => 'es']);
    ($this->letters)()
        ->assertStatus(422)
        ->assertJsonPath('errors.without.0', fn(string $said): bool => str_contains($said, 'missing in Spanish'));
    expect(DB::table('family_letters')->count())->toBe(0);
    $text = ($this->text)(
        ($this->letters)(['without' => true])
            ->assertOk()
            ->json('id'),
    );
    expect(substr_count($text, 'The office of Lanternfield Primary is open until four.'))->toBe(2);
    $write('es', ['note' => 'La oficina abre hasta las cuatro.'])->assertOk();
    expect(($this->text)(($this->letters)()->assertOk()->json('id')))->toContain('La oficina abre hasta las cuatro.');
    // Taken back, ours stand again, and the ledger undoes it.
    $write('es', ['note' => ''])
        ->assertOk()
        ->assertJsonPath('texts.11.own', null);
    $entry = DB::table('ledger_entries')->orderByDesc('seq')->value('id');
    $this->postJson("/api/ledger/$entry/undo")->assertOk();
    $this->getJson("$this->school/letters/wording?kind=family&language=es")->assertJsonPath(
        'texts.11.own',
        'La oficina abre hasta las cuatro.',
    );
});

it('refuses words that leave no room on the page before anything is issued', function (): void {
    $long = implode("\n", array_fill(0, 40, 'word word'));
    foreach (['intro', 'check', 'note'] as $text) {
        $this->postJson("$this->school/letters/wording", [
            'kind' => 'family',
            'language' => 'en',
            'texts' => [$text => $long],
        ])->assertOk();
    }
    ($this->letters)()
        ->assertStatus(422)
        ->assertJsonPath(
            'errors.wording.0',
            fn(string $said): bool => str_starts_with($said, '3 letters do not fit on a page, in English.'),
        );
    $this->getJson("$this->school/letters/sample?kind=family&language=en")->assertStatus(422);
    expect(DB::table('family_letters')->count())->toBe(0);
});

it('prints the login for the summer, with a card’s square that signs in', function (): void {
    DB::table('sign_ins')
        ->where('person_id', $this->kai)
        ->update(['password' => bcrypt('four green boats'), 'passphrase' => null]);
    $text = ($this->text)(
        ($this->letters)(['kind' => 'summer'])
            ->assertOk()
            ->json('id'),
    );
    expect($text)->toContain('Login for the summer: Noor Haddad')->toContain('your own password');
    preg_match('/noor\.haddad\s+Passphrase\s+([a-z]+ [a-z]+ [a-z]+)/', $text, $m);
    $this->app['auth']->forgetGuards();
    $this->postJson('/api/sign-in', ['user_name' => 'noor.haddad', 'secret' => $m[1]])->assertOk();
});

it('prints a sample in each kind and language', function (string $kind, string $language): void {
    $pdf = $this->getJson("$this->school/letters/sample?kind=$kind&language=$language&paper=letter")->assertOk();
    expect((string) $pdf->getContent())->toStartWith('%PDF');
})->with(['family', 'summer', 'handout'], ['en', 'es', 'fr', 'ar', 'vi', 'uk', 'zh']);

it('prints posters, slips and handouts of a code that works, and says which section has none', function (): void {
    $section = $this->world->section;
    $print = fn(array $wish) => $this->postJson("$this->school/codes/print", [
        'section_ids' => [$section],
        ...$wish,
    ]);
    $print(['kind' => 'poster', 'section_ids' => [$section, $this->world->otherSection]])
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_contains($said, '3 Plover has no code'));
    $written = CodeSymbols::parse($this->world->code)->written();
    $text = function (array $wish) use ($print): string {
        $file = scratch() . '/w.pdf';
        file_put_contents($file, (string) $print($wish)->assertOk()->getContent());

        return outside(['pdftotext', '-raw', $file, '-']);
    };
    expect($text(['kind' => 'poster']))
        ->toContain($written)
        ->toContain('minutes of arc')
        ->and(substr_count($text(['kind' => 'slips', 'copies' => 14]), $written))
        ->toBe(14)
        ->and($text(['kind' => 'handout', 'languages' => ['es', 'uk']]))
        ->toContain('Cómo entrar en 3 Heron')
        ->toContain('Як увійти до 3 Heron');
    $this->actingAs($this->world->as('lead'))
        ->getJson("/api/sections/$section/code/print?kind=poster")
        ->assertOk();
});

it('asks for the wording of handouts in every language too', function (): void {
    $this->postJson("$this->school/letters/wording", [
        'kind' => 'handout',
        'language' => 'en',
        'texts' => ['note' => 'Ask in room 12.'],
    ])->assertOk();
    $wish = ['kind' => 'handout', 'section_ids' => [$this->world->section], 'languages' => ['en', 'vi']];
    $this->postJson("$this->school/codes/print", $wish)
        ->assertStatus(422)
        ->assertJsonPath('errors.without.0', fn(string $said): bool => str_contains($said, 'missing in Vietnamese'));
    $this->postJson("$this->school/codes/print", [...$wish, 'without' => true])->assertOk();
});

it('asks about a user name that is too long for its box, before anything is issued', function (): void {
    DB::table('sign_ins')
        ->where('person_id', $this->kai)
        ->update(['user_name' => str_repeat('w', 90)]);
    ($this->letters)(['kind' => 'summer'])
        ->assertStatus(422)
        ->assertJsonPath(
            'errors.wording.0',
            fn(string $said): bool => str_contains($said, 'user name that is too long'),
        );
    expect(DB::table('badges')->count())->toBe(0);
});
