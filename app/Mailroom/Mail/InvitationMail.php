<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\Headers;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Mailroom\MessageKind;

/** Asks a colleague into a section. */
final class InvitationMail extends Mailable
{
    public function __construct(
        public readonly string $schoolId,
        public readonly string $schoolName,
        public readonly string $section,
        public readonly string $role,
        public readonly string $inviter,
        public readonly string $link,
        public readonly string $expires,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: "{$this->inviter} asks you into {$this->section}");
    }

    public function headers(): MailHeaders
    {
        return (new Headers($this->schoolId, MessageKind::Staff, $this->schoolName))->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.invitation-text');
    }
}
