<?php

declare(strict_types=1);

namespace App\Mailroom;

use Symfony\Component\Mailer\SentMessage;
use Symfony\Component\Mailer\Transport\AbstractTransport;
use Symfony\Component\Mime\Email;
use Symfony\Component\Mime\MessageConverter;

/** Where every mail of the application goes: into the outbox, in the transaction of whatever writes it. */
final class MailroomTransport extends AbstractTransport
{
    public function __construct(private readonly Outbox $outbox)
    {
        parent::__construct();
    }

    public function __toString(): string
    {
        return 'mailroom://';
    }

    protected function doSend(SentMessage $message): void
    {
        /** @var Email $email */
        $email = MessageConverter::toEmail($message->getOriginalMessage()); // @phpstan-ignore argument.type
        foreach ($message->getEnvelope()->getRecipients() as $recipient) {
            $this->outbox->put(
                Headers::of($email),
                'mail',
                $recipient->getAddress(),
                (string) $email->getSubject(),
                (string) $email->getTextBody(),
                $email->getHtmlBody() === null ? null : (string) $email->getHtmlBody(),
            );
        }
    }
}
