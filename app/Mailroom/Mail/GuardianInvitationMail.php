<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\FamilyWords;
use App\Mailroom\Headers;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Mailroom\MessageKind;

/** Asks a guardian to connect. It names the school and the given names of the children, and no more. */
final class GuardianInvitationMail extends Mailable
{
    /**
     * @param  list<string>  $students ids
     * @param  list<string>  $children given names of the same
     * @param  string  $until YYYY-MM-DD
     */
    public function __construct(
        private readonly string $schoolId,
        private readonly string $schoolName,
        private readonly string $guardianId,
        private readonly array $students,
        private readonly array $children,
        private readonly string $link,
        private readonly string $until,
        private readonly bool $reminds,
        private readonly FamilyWords $words,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(
            subject: $this->words->say($this->reminds ? 'remind.subject' : 'invite.subject', $this->places()),
        );
    }

    public function headers(): MailHeaders
    {
        $about = new Headers(
            $this->schoolId,
            MessageKind::Guardian,
            $this->schoolName,
            $this->guardianId,
            $this->students,
            $this->words->language,
        );

        return $about->forMail();
    }

    public function content(): Content
    {
        return new Content(
            text: 'mail.lines-text',
            with: [
                'lines' => [
                    $this->schoolName,
                    $this->words->say('invite.asks', $this->places()) . "\n" . $this->words->say('invite.why'),
                    $this->words->say('invite.link', ['day' => $this->words->day($this->until)]) . "\n$this->link",
                    $this->words->say('invite.not'),
                ],
            ],
        );
    }

    /** @return array<string, string> */
    private function places(): array
    {
        return ['school' => $this->schoolName, 'names' => $this->words->names($this->children)];
    }
}
