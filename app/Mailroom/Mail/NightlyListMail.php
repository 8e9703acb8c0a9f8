<?php

declare(strict_types=1);

namespace App\Mailroom\Mail;

use App\Mailroom\Headers;
use Illuminate\Mail\Mailable;
use Illuminate\Mail\Mailables\Content;
use Illuminate\Mail\Mailables\Envelope;
use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Vantrel\Core\Mailroom\MessageKind;

/** What came of a list that was left in the watched folder. Names no student: mail is read on telephones in trains. */
final class NightlyListMail extends Mailable
{
    /**
     * @param  string  $trouble why nothing was written, '' if all went well
     * @param  string  $sentence what the plan does
     * @param  list<string>  $rows rows that wait for a person, and why
     * @param  list<string>  $notes
     */
    public function __construct(
        public readonly string $schoolId,
        public readonly string $schoolName,
        public readonly string $file,
        public readonly string $trouble,
        public readonly string $sentence,
        public readonly array $rows,
        public readonly array $notes,
        public readonly string $link,
    ) {}

    public function envelope(): Envelope
    {
        return new Envelope(subject: $this->trouble === '' ? "{$this->file}: applied" : "{$this->file}: stopped");
    }

    public function headers(): MailHeaders
    {
        return (new Headers($this->schoolId, MessageKind::Report, $this->schoolName))->forMail();
    }

    public function content(): Content
    {
        return new Content(text: 'mail.nightly-list-text');
    }
}
