<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Models\Person;
use App\Models\School;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers;
use Illuminate\Support\Facades\Mail;

/** Tells somebody what was done to the account they have. Holds no secret and no link. */
final class AccountNotice extends Mailable implements ShouldQueue
{
    use Queueable;

    /** @param  list<string>  $lines sentences */
    public function __construct(
        public readonly string $schoolId,
        public readonly string $schoolName,
        public readonly string $what,
        public readonly array $lines,
    ) {
        $this->afterCommit();
    }

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
        Mail::to($address)->queue(new self($schoolId, School::query()->findOrFail($schoolId)->name, $what, $lines));
    }

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->what);
    }

    public function headers(): Headers
    {
        return new Headers(text: ['X-Vantrel-School' => $this->schoolId]);
    }

    public function content(): Content
    {
        return new Content(text: 'mail.account-notice-text');
    }
}
