<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\FamilyWords;
use App\Mailroom\Headers;
use App\Models\Person;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Mailroom\MessageKind;

/** Carries the link for a new password, or for the first one, in the language of whoever has the account. */
final class ResetMail extends Mailable
{
    /** Links that work longer than a day open an account; the others replace a password. */
    private const DAY = 1440;

    private readonly FamilyWords $words;

    public function __construct(
        private readonly Person $person,
        private readonly string $schoolName,
        private readonly string $userName,
        private readonly string $link,
        private readonly int $minutes,
    ) {
        $this->words = new FamilyWords($person->kind === 'staff' ? 'en' : $person->language);
    }

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->say('subject'));
    }

    public function headers(): MailHeaders
    {
        $about = new Headers(
            $this->person->school_id,
            MessageKind::Account,
            $this->schoolName,
            $this->person->id,
            language: $this->words->language,
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
                    $this->say($this->opens() ? 'is' : 'asks'),
                    $this->say('here') . "\n$this->link",
                    $this->say('once') . ($this->opens() ? '' : "\n" . $this->say('not')),
                ],
            ],
        );
    }

    private function opens(): bool
    {
        return $this->minutes > self::DAY;
    }

    private function say(string $key): string
    {
        return $this->words->say(($this->opens() ? 'open.' : 'reset.') . $key, [
            'user' => $this->userName,
            'minutes' => (string) $this->minutes,
            'days' => (string) intdiv($this->minutes, self::DAY),
        ]);
    }
}
