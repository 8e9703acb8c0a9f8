<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\OutgoingMessage;
use Illuminate\Support\Str;
use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;
use Symfony\Component\Mime\Email;
use Symfony\Component\Mime\MessageConverter;

/** Stands in for SMTP: keeps every message where the coordinator can read it; nothing leaves the machine. */
final class MailroomTransport extends AbstractTransport
{
    public function __toString(): string
    {
        return 'mailroom://';
    }

    protected function doSend(SentMessage $message): void
    {
        /** @var Email $email */
        $email = MessageConverter::toEmail($message->getOriginalMessage()); // @phpstan-ignore argument.type
        foreach ($message->getEnvelope()->getRecipients() as $recipient) {
            OutgoingMessage::query()->create([
                'id' => (string) Str::ulid(),
                'school_id' => $email->getHeaders()->get('X-Vantrel-School')?->getBodyAsString() ?: null,
                'to_address' => $recipient->getAddress(),
                'subject' => (string) $email->getSubject(),
                'text' => (string) $email->getTextBody(),
                'html' => $email->getHtmlBody() === null ? null : (string) $email->getHtmlBody(),
                'made_at' => now(),
            ]);
        }
    }
}
