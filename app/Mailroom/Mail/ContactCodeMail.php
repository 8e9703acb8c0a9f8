<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers;

/** A code that shows that an address is somebody's. */
final class ContactCodeMail extends Mailable
{
    /** @param  list<string>  $lines */
    public function __construct(
        private readonly string $schoolId,
        private readonly string $about,
        public readonly array $lines,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->about);
    }

    public function headers(): Headers
    {
        return new Headers(text: ['X-Vantrel-School' => $this->schoolId]);
    }

    public function content(): Content
    {
        return new Content(text: 'mail.lines-text', with: ['lines' => $this->lines]);
    }
}
