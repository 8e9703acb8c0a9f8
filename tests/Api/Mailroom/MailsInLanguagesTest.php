<?php

declare(strict_types=1);

use App\Mailroom\Mail\AccountNotice;
use App\Mailroom\Mail\NewcomerMail;
use App\Mailroom\Mail\ResetMail;
use App\Models\OutgoingMessage;
use App\Models\Person;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Tests\Support\World;
use Vantrel\Core\Values\Language;

beforeEach(function (): void {
    $this->world = World::make();
    $this->guardian = fn(string $language): Person => Person::query()->findOrFail(
        $this->world->person($this->world->school, 'guardian', 'Layla Haddad', [
            'email' => "layla-$language@shoremail.example",
            'email_state' => 'confirmed',
            'language' => $language,
        ]),
    );
});

it('writes every mail about an account in the language of whoever has it, with its places filled', function (): void {
    $texts = [];
    foreach ([...Language::WRITTEN, 'so'] as $language) {
        $person = ($this->guardian)($language);
        foreach (['ended', 'all', 'closed'] as $key) {
            AccountNotice::tell($person, $key, detail: 'Ends a card.');
        }
        AccountNotice::tell($person, 'password', ['user' => 'layla']);
        AccountNotice::toAddress('old@shoremail.example', $person, 'old', 'old.is', ['new' => 'new@shoremail.example']);
        AccountNotice::toAddress('old@shoremail.example', $person, 'old', 'off.is');
        AccountNotice::toAddress('new@shoremail.example', $person, 'new', 'new.is', ['old' => 'old@shoremail.example']);
        foreach ([60, 4320] as $minutes) {
            Mail::to('layla@shoremail.example')->send(
                new ResetMail($person, 'Lanternfield', 'layla', 'https://school.example/new-password#x', $minutes),
            );
        }
        Mail::to('noor@shoremail.example')->send(
            new NewcomerMail(
                $this->world->school,
                'Lanternfield',
                '3 Heron',
                'Noor Haddad',
                'https://school.example/confirm#x',
                3,
                $language,
            ),
        );
        $mails = OutgoingMessage::query()->orderBy('id')->get();
        expect($mails)->toHaveCount(10);
        $written = $language === 'so' ? 'en' : $language;
        foreach ($mails as $mail) {
            expect($mail->subject . $mail->text)
                ->not->toContain('{{')
                ->and($mail->language)
                ->toBe($written);
        }
        // What was ended is told to those who read the language it is said in.
        expect($mails->filter(fn(OutgoingMessage $m): bool => str_contains($m->text, 'Ends a card.'))->count())->toBe(
            $written === 'en' ? 3 : 0,
        );
        $texts[$language] = $mails->map(fn(OutgoingMessage $m): string => $m->subject)->all();
        OutgoingMessage::query()->delete();
    }
    // No language says it in the words of another; what nothing is written in is read in English.
    expect($texts['so'])->toBe($texts['en']);
    foreach (array_diff(Language::WRITTEN, ['en']) as $language) {
        expect(array_intersect($texts[$language], $texts['en']))->toBe([], $language);
    }
});

it('keeps English for staff, and finds the mails of one person', function (): void {
    $lead = Person::query()->findOrFail($this->world->people['lead']);
    DB::table('people')
        ->where('id', $lead->id)
        ->update(['language' => 'es', 'email' => 'p@lanternfield.example', 'email_state' => 'confirmed']);
    AccountNotice::tell($lead->refresh(), 'closed');
    AccountNotice::toStaff($lead, 'The second factor was removed', ['Signing in takes the password alone again.']);
    expect(OutgoingMessage::query()->where('person_id', $lead->id)->where('language', 'en')->count())->toBe(2);
});
