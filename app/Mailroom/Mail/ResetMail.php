<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\Headers;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Mailroom\MessageKind;

/** Carries the link for a new password. */
final class ResetMail extends Mailable
{
    public function __construct(
        public readonly string $schoolId,
        public readonly string $schoolName,
        public readonly string $userName,
        public readonly string $link,
        public readonly int $minutes,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(
            subject: ($this->minutes <= 1440 ? 'A new password for ' : 'Your account ') . $this->userName,
        );
    }

    public function headers(): MailHeaders
    {
        return (new Headers($this->schoolId, MessageKind::Account, $this->schoolName))->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.reset-text');
    }
}
