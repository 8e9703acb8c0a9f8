<?php

declare(strict_types=1);

use App\Mailroom\Compose;
use App\Mailroom\FamilyWords;
use App\Mailroom\Headers;
use App\Mailroom\LetterFiles;
use App\Mailroom\Mail\GuardianInvitationMail;
use App\Mailroom\Mail\NewcomerMail;
use App\Mailroom\Mail\StudentInvitationMail;
use App\Mailroom\Outbox;
use App\Models\OutgoingMessage;
use App\Models\Person;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Str;
use Tests\Support\World;
use Vantrel\Core\Door\Invitee;
use Vantrel\Core\Mailroom\MessageKind;

beforeEach(function (): void {
    $this->world = World::make();
    $this->eml = fn(OutgoingMessage $message): array => asPythonReads(Compose::email($message)->toString());
});

it('names one family in the headers of every kind of mail, as an independent parser reads them', function (
    MessageKind $kind,
): void {
    $guardian = $this->world->people['guardian'];
    $mailing = (string) Str::ulid();
    DB::table('mailings')->insert([
        'id' => $mailing,
        'school_id' => $this->world->school,
        'person_id' => $this->world->people['lead'],
        'whom' => 'all guardians',
        'subject' => 'Trip',
        'goes_at' => now(),
        'made_at' => now(),
    ]);
    foreach (['one@shoremail.example', 'two@shoremail.example'] as $to) {
        $message = app(Outbox::class)->put(
            new Headers(
                $this->world->school,
                $kind,
                'Lanternfield Primary <office@elsewhere.example>',
                $guardian,
                [$this->world->people['student']],
                'es',
                (string) Str::ulid(),
            ),
            'mail',
            $to,
            "Para two@shoremail.example,\r\nCc: one@shoremail.example",
            'x',
            null,
        );
        $message->update([
            'mailing_id' => $kind === MessageKind::Letter ? $mailing : null,
            'reply_to' => 'petra@lanternfield.example',
        ]);
        $read = ($this->eml)($message);
        expect($read['to'])
            ->toBe([$to])
            ->and($read['from'])
            ->toBe([config('mail.from.address')])
            ->and(array_intersect($read['headers'], ['cc', 'bcc', 'sender', 'resent-to']))
            ->toBe([])
            ->and(implode(' ', $read['headers']))
            ->not->toContain('vantrel')
            ->and($read['defects'])
            ->toBe([]);
        // But for the subject, which somebody has typed, there are the reader’s own and the writer’s.
        expect(array_values(array_diff($read['addresses'], ['petra@lanternfield.example'])))->toBe([$to]);
    }
})->with(MessageKind::cases());

it('puts nothing that an outsider types into the sender or the subject, however alike it looks', function (): void {
    // Cyrillic letters that look like Latin ones, and marks that turn the reading round.
    $homograph = "L\u{430}nternfield Prim\u{430}ry\u{202E}";
    Mail::to('noor@lanternfield.example')->send(
        new NewcomerMail(
            $this->world->school,
            'Lanternfield Primary',
            '3 Heron',
            $homograph,
            'https://x.example/confirm#t',
            3,
            'en',
        ),
    );
    $read = ($this->eml)(OutgoingMessage::query()->sole());
    expect($read['subject'])->toBe('Come into 3 Heron')->and($read['from_name'])->toBe('Lanternfield Primary');
    // At the door itself such marks are taken out of a name before anybody reads it.
    $this->postJson('/api/join/ask', [
        'code' => $this->world->code,
        'given_name' => "No\u{202E}or\u{2066}",
        'family_name' => "Haddad\r\nBcc: x@y.example",
        'birth_date' => '2010-01-01',
        'password' => 'otter on maple',
    ]);
    $name = DB::table('join_requests')->sole();
    expect("$name->given_name $name->family_name")
        ->toContain('Haddad')
        ->not->toMatch('/[\x{202A}-\x{202E}\x{2066}-\x{2069}\r\n]/u');
});

it('keeps words of another script apart in what is read from the right', function (): void {
    $words = new FamilyWords('ar');
    expect($words->say('come.asks', ['teacher' => 'Petra Okonjo', 'school' => 'Lanternfield', 'section' => '3 Heron']))
        ->toContain("\u{2068}3 Heron\u{2069}")
        ->and((new FamilyWords('es'))->say('come.subject', ['school' => 'L', 'section' => '3 Heron']))
        ->not->toContain("\u{2068}");
    $invitee = new Invitee('x', 'layla@shoremail.example', true, null, null, '', 'ar');
    Mail::to('layla@shoremail.example')->send(
        new StudentInvitationMail(
            $this->world->school,
            'Lanternfield',
            '3 Heron',
            "O'Brien & Co",
            $invitee,
            '',
            'https://x.example/come#t',
            '2026-12-11',
        ),
    );
    $read = ($this->eml)(OutgoingMessage::query()->sole());
    expect($read['subject'])
        ->not->toContain("\u{2068}")
        ->and($read['plain'])
        ->toContain("O'Brien & Co")
        ->and($read['html'])
        ->toContain('dir="rtl"');
});

it('reads a letter with its files the same as it was meant', function (): void {
    $lead = Person::query()->findOrFail($this->world->people['lead']);
    $pdf = '%PDF-1.7 ' . random_bytes(5000);
    $file = (new LetterFiles())->keep(
        UploadedFile::fake()->createWithContent('Карта, гавань.pdf', $pdf),
        $this->world->school,
        $lead,
    );
    $mailing = (string) Str::ulid();
    DB::table('mailings')->insert([
        'id' => $mailing,
        'school_id' => $this->world->school,
        'person_id' => $lead->id,
        'whom' => 'all guardians',
        'subject' => 'Trip',
        'goes_at' => now(),
        'made_at' => now(),
    ]);
    (new LetterFiles())->goWith($mailing, [$file->id]);
    $message = app(Outbox::class)->put(
        new Headers($this->world->school, MessageKind::Letter),
        'mail',
        'a@shoremail.example',
        'Trip',
        "On Friday.\n",
        null,
    );
    $message->update(['mailing_id' => $mailing]);
    $read = ($this->eml)($message);
    expect($read)
        ->toMatchArray([
            'type' => 'multipart/mixed',
            'defects' => [],
            'files' => [['Карта, гавань.pdf', 'application/pdf', strlen($pdf)]],
        ])
        ->and(trim($read['plain']))
        ->toBe('On Friday.')
        ->and($read['html'])
        ->toContain('<p>On Friday.</p>');
});

it('writes a colleague’s name as it is', function (): void {
    Mail::to('nela@lanternfield.example')->send(
        new App\Mailroom\Mail\InvitationMail(
            $this->world->school,
            'St. Anne’s',
            '3 Heron',
            'co-teacher',
            "Sinéad O'Brien",
            'https://x.example/invited#t',
            '1 December 2026',
        ),
    );
    Mail::to('layla@shoremail.example')->send(
        new GuardianInvitationMail(
            $this->world->school,
            'St. Anne\'s',
            $this->world->people['guardian'],
            [],
            ["D'Arcy"],
            'https://x.example/guardian#t',
            '2026-12-11',
            false,
            new FamilyWords('en'),
        ),
    );
    foreach (OutgoingMessage::query()->get() as $message) {
        expect($message->text)->not->toContain('&#')->and(($this->eml)($message)['plain'])->toMatch("/O'Brien|D'Arcy/");
    }
});
