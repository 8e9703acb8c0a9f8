<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\FamilyWords;
use App\Mailroom\Headers;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Door\Invitee;
use Vantrel\Core\Mailroom\MessageKind;

/** Asks a student, or a family, into a section. It names the student only to an address on record. */
final class StudentInvitationMail extends Mailable
{
    private readonly FamilyWords $words;

    /**
     * @param  string  $until YYYY-MM-DD
     * @param  string  $aboutId id of the invitation
     */
    public function __construct(
        private readonly string $schoolId,
        private readonly string $schoolName,
        private readonly string $section,
        private readonly string $inviter,
        private readonly Invitee $invitee,
        private readonly string $aboutId,
        private readonly string $link,
        private readonly string $until,
    ) {
        $this->words = new FamilyWords($invitee->language);
    }

    /** @return list<string> paragraphs */
    public function lines(): array
    {
        $asks = !$this->invitee->family ? 'come.asks' : ($this->invitee->name === '' ? 'come.child' : 'come.family');

        return [
            $this->words->say($asks, $this->places()),
            $this->words->say('come.link', ['day' => $this->words->day($this->until)]) . "\n$this->link",
            $this->words->say('come.not'),
        ];
    }

    public function about(): string
    {
        return $this->words->say('come.subject', $this->places());
    }

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->about());
    }

    public function headers(): MailHeaders
    {
        $about = new Headers(
            $this->schoolId,
            MessageKind::Student,
            $this->schoolName,
            $this->invitee->guardianId ?? $this->invitee->studentId,
            $this->invitee->guardianId === null || $this->invitee->studentId === null
                ? []
                : [$this->invitee->studentId],
            $this->words->language,
            $this->aboutId,
        );

        return $about->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.lines-text', with: ['lines' => $this->lines()]);
    }

    /** @return array<string, string> */
    private function places(): array
    {
        return [
            'school' => $this->schoolName,
            'section' => $this->section,
            'teacher' => $this->inviter,
            'name' => $this->invitee->name,
        ];
    }
}
