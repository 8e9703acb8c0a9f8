<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\FamilyWords;
use App\Mailroom\Headers;
use App\Models\Person;
use App\Models\School;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Illuminate\Support\Facades\Mail;
use Vantrel\Core\Mailroom\MessageKind;

/** Tells somebody what was done to the account they have, in their language. Holds no secret and no link. */
final class AccountNotice extends Mailable
{
    /** @param  list<string>  $lines sentences */
    private function __construct(
        private readonly string $schoolId,
        private readonly string $schoolName,
        private readonly string $personId,
        private readonly string $what,
        private readonly array $lines,
        private readonly FamilyWords $words,
    ) {}

    /**
     * To the confirmed address; to nobody where there is none.
     *
     * @param  string  $key of what is said: `notice.` and this, and the same with `.is`
     * @param  array<string, string>  $places
     * @param  string  $detail in English, for those who read it
     */
    public static function tell(Person $person, string $key, array $places = [], string $detail = ''): void
    {
        if ($person->confirmedEmail() !== null) {
            self::toAddress($person->confirmedEmail(), $person, $key, "$key.is", $places, $detail);
        }
    }

    /**
     * @param  string  $is key of the sentence, after `notice.`
     * @param  array<string, string>  $places
     */
    public static function toAddress(
        string $address,
        Person $person,
        string $key,
        string $is,
        array $places = [],
        string $detail = '',
    ): void {
        $words = new FamilyWords($person->kind === 'staff' ? 'en' : $person->language);
        $lines = [$words->say("notice.$is", $places)];
        if ($detail !== '' && $words->language === 'en') {
            $lines[] = $detail;
        }
        self::post($address, $person, $words->say("notice.$key", $places), $lines, $words);
    }

    /**
     * What only staff have, and so read in English.
     *
     * @param  list<string>  $lines
     */
    public static function toStaff(Person $person, string $what, array $lines): void
    {
        if ($person->confirmedEmail() !== null) {
            self::post($person->confirmedEmail(), $person, $what, $lines, new FamilyWords('en'));
        }
    }

    /** @param  list<string>  $lines */
    private static function post(string $to, Person $person, string $what, array $lines, FamilyWords $words): void
    {
        $school = School::query()->findOrFail($person->school_id)->name;
        $lines = [...$lines, $words->say('notice.end', ['school' => $school])];
        Mail::to($to)->send(new self($person->school_id, $school, $person->id, $what, $lines, $words));
    }

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->what);
    }

    public function headers(): MailHeaders
    {
        $about = new Headers(
            $this->schoolId,
            MessageKind::Account,
            $this->schoolName,
            $this->personId,
            language: $this->words->language,
        );

        return $about->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.lines-text', with: ['lines' => $this->lines]);
    }
}
