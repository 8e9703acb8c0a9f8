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

/** Asks a newcomer to confirm that an address of the school is theirs. */
final class NewcomerMail extends Mailable
{
    private readonly FamilyWords $words;

    /** @param  string|null  $language a tag: the one their device reads */
    public function __construct(
        private readonly string $schoolId,
        private readonly string $schoolName,
        private readonly string $section,
        private readonly string $name,
        private readonly string $link,
        private readonly int $days,
        ?string $language,
    ) {
        $this->words = new FamilyWords($language);
    }

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->say('subject'));
    }

    public function headers(): MailHeaders
    {
        $about = new Headers(
            $this->schoolId,
            MessageKind::Account,
            $this->schoolName,
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
                    $this->say('asks'),
                    $this->say('here') . "\n$this->link",
                    $this->say('not'),
                ],
            ],
        );
    }

    private function say(string $key): string
    {
        return $this->words->say("newcomer.$key", [
            'section' => $this->section,
            'name' => $this->name,
            'days' => (string) $this->days,
        ]);
    }
}
