<?php

declare(strict_types=1);

use App\Models\PrintRun;
use App\PrintRoom\CardJob;
use App\PrintRoom\Jobs\SetPrint;
use App\PrintRoom\PrintRuns;
use App\PrintRoom\Whom;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Tests\Support\World;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\Paper;

beforeEach(function (): void {
    $this->world = World::make();
    foreach (['Noor Haddad', 'Kai Wu', 'Saoirse O’Dwyer'] as $name) {
        $this->world->student($name, $this->world->section);
    }
    $this->cards = fn(array $wish = [], string $as = 'coordinator') => $this->actingAs($this->world->as($as))->postJson(
        "/api/schools/{$this->world->school}/cards",
        [
            'section_ids' => [$this->world->section],
            'layout' => 'cards-a4',
            'order' => 'reading',
            ...$wish,
        ],
    );
    $this->names = function (string $id): array {
        $file = scratch() . '/p.pdf';
        file_put_contents($file, app(PrintRuns::class)->file(PrintRun::query()->findOrFail($id)));

        return array_values(
            array_filter(
                ['Noor Haddad', 'Kai Wu', 'Saoirse O’Dwyer', 'Wilhelmina Seabright'],
                fn(string $name): bool => str_contains(outside(['pdftotext', '-raw', $file, '-']), $name),
            ),
        );
    };
});

it('keeps a print sealed for a day, for whoever printed it', function (): void {
    $print = ($this->cards)()
        ->assertOk()
        ->assertJson(['state' => 'done', 'total' => 4, 'done' => 4])
        ->json();
    $file = $this->getJson("/api/prints/{$print['id']}/file")->assertOk();
    expect((string) $file->getContent())
        ->toStartWith('%PDF')
        ->and($file->headers->get('Content-Type'))
        ->toBe('application/pdf')
        ->and($file->headers->get('Cache-Control'))
        ->toContain('no-store')
        ->and((string) DB::table('print_runs')->value('sealed'))
        ->not->toContain('PDF')
        ->and(($this->names)($print['id']))
        ->toHaveCount(4);
    $this->getJson("/api/schools/{$this->world->school}/prints")->assertJsonPath('prints.0.id', $print['id']);

    // Another coordinator of the same school neither sees it nor opens it.
    $second = $this->world->staff($this->world->school, 'Idris Vane');
    $this->world->coordinates($second, $this->world->school);
    $this->world->people['second'] = $second;
    $this->actingAs($this->world->as('second'))
        ->getJson("/api/prints/{$print['id']}/file")
        ->assertForbidden();
    $this->getJson("/api/schools/{$this->world->school}/prints")->assertJsonCount(0, 'prints');

    // Nor does its maker, once they coordinate no more.
    DB::table('coordinators')
        ->where('person_id', $this->world->people['coordinator'])
        ->update(['state' => 'ended']);
    $this->app['auth']->forgetGuards();
    $this->actingAs($this->world->as('coordinator'))
        ->getJson("/api/prints/{$print['id']}/file")
        ->assertForbidden();
});

it('is gone after its day, and taken away before it where that is wanted', function (): void {
    $kept = ($this->cards)()->json('id');
    $gone = ($this->cards)()->json('id');
    $this->deleteJson("/api/prints/$gone")->assertNoContent();
    $this->getJson("/api/prints/$gone")->assertNotFound();
    DB::table('print_runs')->update(['expires_at' => now()->subMinute()]);
    $this->getJson("/api/prints/$kept/file")
        ->assertStatus(410)
        ->assertJsonPath('detail', 'This print is not kept any more. Print it again.');
    $this->getJson("/api/schools/{$this->world->school}/prints")->assertJsonCount(0, 'prints');
    expect(Artisan::call('vantrel:clear-prints'))
        ->toBe(0)
        ->and(DB::table('print_runs')->count())
        ->toBe(0);
});

it('sets many in the background, and says how far it is', function (): void {
    foreach (range(1, 150) as $i) {
        $this->world->student("Robin Tarn$i", $this->world->section);
    }
    Queue::fake();
    $print = ($this->cards)()
        ->assertJson(['state' => 'waiting', 'total' => 154, 'done' => 0])
        ->json();
    $this->getJson("/api/prints/{$print['id']}/file")->assertStatus(410);
    expect(DB::table('badges')->count())->toBe(0);
    Queue::assertPushed(SetPrint::class, 1);
    Queue::pushed(SetPrint::class)->first()->handle(app(PrintRuns::class));
    $this->getJson("/api/prints/{$print['id']}")->assertJson(['state' => 'done', 'done' => 154]);
    // The same job once more, from a worker that was thought dead, sets nothing.
    $badges = DB::table('badges')->count();
    Queue::pushed(SetPrint::class)->first()->handle(app(PrintRuns::class));
    expect(DB::table('badges')->count())->toBe($badges);
});

it('begins anew where a worker was killed half-way, and gives up in words', function (): void {
    Queue::fake();
    $job = new CardJob(new Whom([$this->world->section]), Paper::of(CardLayout::A4));
    $id = $this->world->insert(
        'print_runs',
        [
            'school_id' => $this->world->school,
            'person_id' => $this->world->people['coordinator'],
            'what' => '4 login cards',
            'state' => 'working',
            'total' => 4,
            'made_at' => now(),
            'expires_at' => now()->addDay(),
        ],
        false,
    );
    (new SetPrint($id, $job))->failed(new RuntimeException('killed'));
    $this->actingAs($this->world->as('coordinator'))
        ->getJson("/api/prints/$id")
        ->assertJson(['state' => 'failed', 'problem' => 'The print could not be set. Print it again.']);
    DB::table('print_runs')->update(['state' => 'working']);
    (new SetPrint($id, $job))->handle(app(PrintRuns::class));
    $this->getJson("/api/prints/$id")->assertJson(['state' => 'done']);
});

it('says in the background what does not fit, and about what', function (): void {
    DB::table('sign_ins')
        ->where('user_name', 'like', 'kai%')
        ->update(['user_name' => str_repeat('w', 60)]);
    $id = $this->world->insert(
        'print_runs',
        [
            'school_id' => $this->world->school,
            'person_id' => $this->world->people['coordinator'],
            'what' => '4 login cards',
            'state' => 'waiting',
            'total' => 4,
            'made_at' => now(),
            'expires_at' => now()->addDay(),
        ],
        false,
    );
    $job = new CardJob(new Whom([$this->world->section]), Paper::of(CardLayout::LabelsLetterx30));
    (new SetPrint($id, $job))->handle(app(PrintRuns::class));
    $this->actingAs($this->world->as('coordinator'))
        ->getJson("/api/prints/$id")
        ->assertJson(['state' => 'failed', 'field' => 'shorten']);
    expect(DB::table('badges')->count())->toBe(0);
});

it('keeps nothing of a print that is refused', function (): void {
    ($this->cards)(['section_ids' => [$this->world->otherSection]])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'There are no students in what was chosen.');
    expect(DB::table('print_runs')->count())->toBe(0);
});

it('prints for those who never signed in, have no card, lost one, or came since a day', function (): void {
    $id = fn(string $name): string => (string) DB::table('people')
        ->where('search_name', 'like', "%$name%")
        ->value('id');
    DB::table('sign_ins')
        ->where('person_id', '!=', $id('haddad'))
        ->update(['last_signed_in_at' => now()]);
    DB::table('enrollments')
        ->where('person_id', $id('wu'))
        ->update(['begins_on' => now()->subDay()->format('Y-m-d')]);
    DB::table('enrollments')
        ->where('person_id', '!=', $id('wu'))
        ->update(['begins_on' => now()->subDays(30)->format('Y-m-d')]);
    DB::table('roll_days')->delete();
    expect(
        ($this->names)(
            ($this->cards)(['printed' => 'never_signed_in'])
                ->assertOk()
                ->json('id'),
        ),
    )->toBe(['Noor Haddad']);
    $since = ['printed' => 'since', 'since' => now()->subDays(2)->format('Y-m-d')];
    expect(($this->names)(($this->cards)($since)->assertOk()->json('id')))->toBe(['Kai Wu']);
    // Whoever has a card by now is not among those without.
    expect(
        ($this->names)(
            ($this->cards)(['printed' => 'no_card'])
                ->assertOk()
                ->json('id'),
        ),
    )->toBe(['Saoirse O’Dwyer', 'Wilhelmina Seabright']);
    ($this->cards)(['printed' => 'card_lost'])
        ->assertStatus(422)
        ->assertJsonPath('detail', fn(string $said): bool => str_starts_with($said, 'Nobody in what was chosen'));
    ($this->cards)(['printed' => 'since'])
        ->assertStatus(422)
        ->assertJsonValidationErrors('since');
});

it('leaves off a card what is not wanted on it, but never all that signs in', function (): void {
    $print = ($this->cards)(['secret' => false, 'school' => false, 'section' => false, 'pictures' => true]);
    $file = scratch() . '/p.pdf';
    file_put_contents(
        $file,
        app(PrintRuns::class)->file(PrintRun::query()->findOrFail($print->assertOk()->json('id'))),
    );
    $text = outside(['pdftotext', '-raw', $file, '-']);
    expect($text)
        ->toContain('noor.haddad')
        ->not->toContain('Passphrase')
        ->not->toContain('3 Heron')
        ->not->toContain('Lanternfield Primary');
    ($this->cards)(['secret' => false, 'square' => false])
        ->assertStatus(422)
        ->assertJsonPath('errors.square.0', 'With neither the passphrase nor the square, a card opens nothing.');
    ($this->cards)(['pictures' => true, 'layout' => 'labels-letter-30'])
        ->assertStatus(422)
        ->assertJsonPath('detail', 'The row of pictures does not fit on cards of this size. Choose larger ones.');
    $this->getJson("/api/schools/{$this->world->school}/card-sheet?layout=cards-a4&order=reading&cards=4&pictures=1")
        ->assertOk()
        ->assertJsonPath('face.picturesX', fn(float $x): bool => $x > 0);
});
