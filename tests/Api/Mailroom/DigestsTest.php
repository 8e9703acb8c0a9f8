<?php

declare(strict_types=1);

use App\Mailroom\Compose;
use App\Mailroom\Digests;
use App\Mailroom\HearsLink;
use App\Mailroom\Jobs\HandOver;
use App\Models\OutgoingMessage;
use App\Models\School;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Exceptions;
use Tests\Support\MailStandIn;
use Tests\Support\World;

beforeEach(function (): void {
    // A Wednesday, in the forenoon at the school.
    $this->travelTo('2026-11-25 15:00:00');
    $this->world = World::make();
    $this->school = fn(): School => School::query()->findOrFail($this->world->school);
    DB::table('schools')->update(['time_zone' => 'America/New_York']);
    DB::table('guardianships')->update(['state' => 'connected', 'restriction' => null]);
    $this->guardian = $this->world->people['guardian'];
    DB::table('people')
        ->where('id', $this->guardian)
        ->update(['email' => 'omar@shoremail.example', 'language' => null]);
    $this->run = fn(): int => app(Digests::class)->run(($this->school)());
    $this->notice = fn(string $title, array $more = []): string => $this->world->insert('notices', [
        'school_id' => $this->world->school,
        'section_id' => $this->world->section,
        'kind' => 'notice',
        'readers' => 'all',
        'title' => $title,
        'state' => 'live',
        'made_at' => now(),
        ...$more,
    ]);
    $this->often = fn(string $often, int $hour = 17) => DB::table('digest_choices')->upsert(
        ['person_id' => $this->guardian, 'often' => $often, 'at_hour' => $hour],
        ['person_id'],
    );
    $this->mails = fn() => OutgoingMessage::query()->where('kind', 'digest')->orderBy('id')->get();
    // The guardian into another, as a merge leaves it.
    $this->merge = function (): string {
        $survivor = $this->world->person($this->world->school, 'guardian', 'Omar Seabright-Moss', [
            'email' => 'omar.moss@shoremail.example',
        ]);
        DB::table('guardianships')
            ->where('guardian_id', $this->guardian)
            ->update(['guardian_id' => $survivor]);
        DB::table('people')
            ->where('id', $this->guardian)
            ->update(['state' => 'merged', 'merged_into' => $survivor]);

        return $survivor;
    };
});

it('comes once a week to who has not chosen, on Friday at five by the school’s clock', function (): void {
    ($this->notice)('Bring boots', ['body' => 'It rains.']);
    // Last Friday is told of first: the notice is younger, and there is nothing to say.
    expect(($this->run)())->toBe(0);
    $this->travelTo('2026-11-27 21:59:00');
    expect(($this->run)())->toBe(0);
    $this->travelTo('2026-11-27 22:00:00');
    expect([($this->run)(), ($this->run)()])->toBe([1, 0]);
    $mail = ($this->mails)()->sole();
    expect($mail->to_address)
        ->toBe('omar@shoremail.example')
        ->and($mail->subject)
        ->toBe('Lanternfield Primary: what is on for Wilhelmina')
        ->and($mail->text)
        ->toContain('- Bring boots (3 Heron): It rains.')
        ->toContain('/u/' . HearsLink::token($this->guardian));
    // Told once.
    $this->travelTo('2026-12-04 23:00:00');
    expect(($this->run)())->toBe(0);
});

it('says what is missing and coming in the language of the guardian, of all their children in one', function (): void {
    ($this->often)('daily');
    $second = $this->world->student('Kit Moss', $this->world->section);
    $this->world->insert('guardianships', [
        'student_id' => $second,
        'guardian_id' => $this->guardian,
        'state' => 'connected',
    ]);
    DB::table('people')
        ->where('id', $this->guardian)
        ->update(['language' => 'es']);
    ($this->notice)('Trip', ['kind' => 'date', 'on_day' => '2026-11-26', 'made_at' => '2026-10-01 12:00:00']);
    ($this->notice)('Far', ['kind' => 'date', 'on_day' => '2026-12-20', 'made_at' => '2026-10-01 12:00:00']);
    $work = ($this->notice)('Log', ['kind' => 'work', 'on_day' => '2026-11-20', 'made_at' => '2026-11-01 12:00:00']);
    $this->world->insert('work_results', ['notice_id' => $work, 'person_id' => $second, 'state' => 'missing']);
    $this->travelTo('2026-11-25 22:30:00');
    expect(($this->run)())->toBe(1);
    $mail = ($this->mails)()->sole();
    expect($mail->language)
        ->toBe('es')
        ->and($mail->text)
        ->toContain("KIT\n\nSin entregar\n\n- Log")
        ->toContain('WILHELMINA')
        ->toContain('- Trip (26 de noviembre de 2026, 3 Heron)')
        ->not->toContain('Far')
        ->and(DB::table('message_children')->count())
        ->toBe(2);
});

it('is nothing to families of others, those kept away, ended or left alone', function (string $how): void {
    ($this->often)('daily');
    ($this->notice)('Bring boots');
    match ($how) {
        'off' => ($this->often)('off'),
        'restricted' => DB::table('guardianships')->update(['restriction' => 'By court order']),
        'ended' => DB::table('guardianships')->update(['state' => 'ended']),
        'no address' => DB::table('people')
            ->where('id', $this->guardian)
            ->update(['email' => null]),
        'left' => DB::table('people')
            ->where('id', $this->world->people['student'])
            ->update(['state' => 'left']),
        default => DB::table('notices')->update(['state' => 'withdrawn']),
    };
    $this->travelTo('2026-11-25 23:00:00');
    expect(($this->run)())->toBe(0);
})->with(['off', 'restricted', 'ended', 'no address', 'left', 'withdrawn']);

it('ends with one touch in the mail program, also what is queued, and not by being looked at', function (): void {
    $gateway = MailStandIn::start();
    config(['queue.default' => 'null']);
    try {
        ($this->often)('daily', 18);
        ($this->notice)('Bring boots');
        $this->travelTo('2026-11-25 23:30:00');
        expect(($this->run)())->toBe(1);
        $mail = ($this->mails)()->sole();
        $eml = Compose::email($mail)->toString();
        expect($eml)
            ->toContain('List-Unsubscribe-Post: List-Unsubscribe=One-Click')
            ->toContain('List-Unsubscribe: <')
            ->toContain('Auto-Submitted: auto-generated');
        $link = '/u/' . HearsLink::token($this->guardian);
        $this->get($link)->assertRedirect('/hears#' . HearsLink::token($this->guardian));
        expect(DB::table('digest_choices')->value('often'))->toBe('daily');
        $this->post($link, ['List-Unsubscribe' => 'One-Click'])->assertNoContent();
        expect((array) DB::table('digest_choices')->first(['often', 'at_hour']))->toBe([
            'often' => 'off',
            'at_hour' => 18,
        ]);
        HandOver::dispatchSync();
        expect($gateway->deliveries())
            ->toBe([])
            ->and($mail->refresh()->state->value)
            ->toBe('stopped');
    } finally {
        $gateway->end();
    }
});

it('lets whoever has the link choose, and nobody else', function (): void {
    $token = HearsLink::token($this->guardian);
    $this->postJson('/api/hears', ['token' => $token])
        ->assertOk()
        ->assertExactJson(['school' => 'Lanternfield Primary', 'often' => 'weekly', 'hour' => 17]);
    $this->postJson('/api/hears/choose', ['token' => $token, 'often' => 'daily', 'hour' => 7])
        ->assertOk()
        ->assertJsonPath('hour', 7);
    $forged = substr($token, 0, -1) . ($token[57] === 'a' ? 'b' : 'a');
    foreach ([$forged, strtolower($this->world->people['lead']) . substr($token, 26), 'x', ''] as $wrong) {
        $status = $this->postJson('/api/hears/choose', ['token' => $wrong, 'often' => 'off', 'hour' => 7])->status();
        expect($status)->toBeIn([404, 422]);
    }
    $this->post("/u/$forged")->assertNotFound();
    expect(DB::table('digest_choices')->count())->toBe(1);
});

it('writes each digest once though it is killed between two chunks', function (): void {
    ($this->notice)('Bring boots');
    for ($n = 0; $n < 450; $n++) {
        $guardian = $this->world->person($this->world->school, 'guardian', "Guardian $n", ['email' => "g$n@a.example"]);
        $this->world->insert('guardianships', [
            'student_id' => $this->world->people['student'],
            'guardian_id' => $guardian,
            'state' => 'connected',
        ]);
    }
    $this->travelTo('2026-11-27 22:00:00');
    $chunks = 0;
    DB::listen(function (QueryExecuted $query) use (&$chunks): void {
        if (str_ends_with($query->sql, 'limit 200') && ++$chunks === 2) {
            throw new RuntimeException('killed');
        }
    });
    try {
        ($this->run)();
        $this->fail('It was to be killed.');
    } catch (RuntimeException) {
        // The next run goes on where this one was.
    }
    expect(($this->mails)()->count())->toBe(200);
    ($this->run)();
    $to = ($this->mails)()->pluck('to_address');
    expect($to->count())
        ->toBe(451)
        ->and($to->unique()->count())
        ->toBe(451);
});

it('holds nobody’s up for one that cannot be written, and writes that one once it can', function (): void {
    Exceptions::fake();
    ($this->often)('daily');
    ($this->notice)('Bring boots');
    foreach (['ada', 'bo', 'cy'] as $name) {
        $this->world->insert('guardianships', [
            'student_id' => $this->world->people['student'],
            'guardian_id' => $this->world->person($this->world->school, 'guardian', ucfirst($name) . ' Moss', [
                'email' => "$name@shoremail.example",
            ]),
            'state' => 'connected',
        ]);
    }
    $broken = true;
    OutgoingMessage::creating(function (OutgoingMessage $message) use (&$broken): void {
        if ($broken && $message->to_address === 'bo@shoremail.example') {
            throw new RuntimeException('cannot be written');
        }
    });
    $this->travelTo('2026-11-27 22:00:00');
    expect(($this->run)())->toBe(3);
    Exceptions::assertReportedCount(1);
    $broken = false;
    expect([($this->run)(), ($this->run)()])->toBe([1, 0]);
    expect(($this->mails)()->pluck('to_address')->sort()->values()->all())->toBe([
        'ada@shoremail.example',
        'bo@shoremail.example',
        'cy@shoremail.example',
        'omar@shoremail.example',
    ]);
});

it('is a look at what there is where there is much, and says where the rest stands', function (): void {
    ($this->often)('daily');
    DB::table('people')
        ->where('id', $this->guardian)
        ->update(['language' => 'uk']);
    $long = trim(str_repeat('Мандрівка до гавані з обідом. ', 60));
    for ($n = 0; $n < 130; $n++) {
        ($this->notice)("Новина $n", ['body' => $long]);
    }
    $this->travelTo('2026-11-25 22:30:00');
    expect(($this->run)())->toBe(1);
    $mail = ($this->mails)()->sole();
    expect(substr_count($mail->text, '- Новина'))
        ->toBe(40)
        ->and($mail->text)
        ->toContain('… і ще 90')
        ->toContain(
            'Усе є на вашій сторінці:' .
                "
" .
                config('app.url'),
        )
        ->not->toContain($long)
        ->and($mail->html)
        ->toContain('… і ще 90', '<a href="' . config('app.url') . '"')
        ->and(substr_count((string) $mail->html, 'Новина'))
        ->toBe(40);
});

it('leaves alone whoever wanted no more before they were merged, until they choose again', function (): void {
    ($this->notice)('Bring boots');
    ($this->often)('off');
    $link = '/u/' . HearsLink::token($this->guardian);
    $survivor = ($this->merge)();
    $this->travelTo('2026-11-27 22:00:00');
    expect(($this->run)())->toBe(0);
    // The link of an earlier mail still chooses, for whom they are now.
    $token = ['token' => HearsLink::token($this->guardian)];
    $this->postJson('/api/hears', $token)->assertOk()->assertJsonPath('often', 'off');
    $this->postJson('/api/hears/choose', [...$token, 'often' => 'weekly', 'hour' => 17])->assertOk();
    expect(($this->run)())->toBe(1);
    $this->post($link, ['List-Unsubscribe' => 'One-Click'])->assertNoContent();
    expect(DB::table('digest_choices')->where('person_id', $survivor)->value('often'))->toBe('off');
});

it('is stopped in the queue by what whoever it is for chooses once they were merged', function (): void {
    $gateway = MailStandIn::start();
    config(['queue.default' => 'null']);
    try {
        ($this->notice)('Bring boots');
        $this->travelTo('2026-11-27 22:00:00');
        expect(($this->run)())->toBe(1);
        DB::table('digest_choices')->insert(['person_id' => ($this->merge)(), 'often' => 'off', 'at_hour' => 17]);
        HandOver::dispatchSync();
        expect($gateway->deliveries())->toBe([]);
    } finally {
        $gateway->end();
    }
});
