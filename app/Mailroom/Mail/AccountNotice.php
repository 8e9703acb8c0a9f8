<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\Headers;
use App\Models\Person;
use App\Models\School;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Illuminate\Support\Facades\Mail;
use Vantrel\Core\Mailroom\MessageKind;

/** Tells somebody what was done to the account they have. Holds no secret and no link. */
final class AccountNotice extends Mailable
{
    /** @param  list<string>  $lines sentences */
    public function __construct(
        public readonly string $schoolId,
        public readonly string $schoolName,
        public readonly string $what,
        public readonly array $lines,
    ) {}

    /**
     * To the confirmed address; to nobody where there is none.
     *
     * @param  list<string>  $lines
     */
    public static function tell(Person $person, string $what, array $lines): void
    {
        if ($person->confirmedEmail() !== null) {
            self::toAddress($person->confirmedEmail(), $person->school_id, $what, $lines);
        }
    }

    /** @param  list<string>  $lines */
    public static function toAddress(string $address, string $schoolId, string $what, array $lines): void
    {
        Mail::to($address)->send(new self($schoolId, School::query()->findOrFail($schoolId)->name, $what, $lines));
    }

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->what);
    }

    public function headers(): MailHeaders
    {
        return (new Headers($this->schoolId, MessageKind::Account, $this->schoolName))->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.account-notice-text');
    }
}
