<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\Headers;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Mailroom\MessageKind;

/** A code that shows that an address is somebody's. */
final class ContactCodeMail extends Mailable
{
    /** @param  list<string>  $lines */
    public function __construct(
        private readonly string $schoolId,
        private readonly string $about,
        private readonly string $language,
        public readonly array $lines,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->about);
    }

    public function headers(): MailHeaders
    {
        return (new Headers($this->schoolId, MessageKind::Account, language: $this->language))->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.lines-text', with: ['lines' => $this->lines]);
    }
}
