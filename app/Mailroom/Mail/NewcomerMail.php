<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\Headers;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Mailroom\MessageKind;

/** Asks a newcomer to confirm that an address of the school is theirs. */
final class NewcomerMail extends Mailable
{
    public function __construct(
        public readonly string $schoolId,
        public readonly string $schoolName,
        public readonly string $section,
        public readonly string $name,
        public readonly string $link,
        public readonly int $days,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: "Come into {$this->section}");
    }

    public function headers(): MailHeaders
    {
        return (new Headers($this->schoolId, MessageKind::Account, $this->schoolName))->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.newcomer-text');
    }
}
