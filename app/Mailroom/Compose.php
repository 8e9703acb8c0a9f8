<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\OutgoingMessage;
use DateTimeImmutable;
use DateTimeZone;
use Symfony\Component\Mime\Address;
use Symfony\Component\Mime\Email;
use Vantrel\Core\Mailroom\Html;
use Vantrel\Core\Mailroom\MessageKind;

/**
 * A message of the outbox as mail: text and HTML of the same words (RFC 2045), one receiver, its own Message-ID, and
 * the mark of mail that no person has written (RFC 3834), so that no machine answers it.
 */
final class Compose
{
    public static function email(OutgoingMessage $message): Email
    {
        $from = (string) config('mail.from.address');
        $email = (new Email())
            ->from(new Address($from, $message->from_name ?: (string) config('mail.from.name')))
            ->to(new Address($message->to_address))
            ->subject($message->subject)
            ->date(new DateTimeImmutable($message->made_at, new DateTimeZone('UTC')))
            ->text($message->text)
            ->html(self::html($message));
        foreach ($message->mailing_id === null ? [] : LetterFiles::of($message->mailing_id) as $file) {
            $email->attach((string) $file->content, (string) $file->name, (string) $file->type);
        }
        $headers = $email->getHeaders();
        $headers->addIdHeader('Message-ID', self::id($message));
        if ($message->reply_to !== null) {
            $email->replyTo($message->reply_to);
        }
        if ($message->kind !== MessageKind::Letter) {
            $headers->addTextHeader('Auto-Submitted', 'auto-generated');
        }
        $headers->addTextHeader('Content-Language', $message->language);
        if ($message->kind === MessageKind::Digest && $message->person_id !== null) {
            // Ended with one touch in the mail program (RFC 2369, RFC 8058).
            $headers->addTextHeader('List-Unsubscribe', '<' . HearsLink::of($message->person_id) . '>');
            $headers->addTextHeader('List-Unsubscribe-Post', 'List-Unsubscribe=One-Click');
        }

        return $email;
    }

    /** Without its brackets: the same however often it is composed. */
    public static function id(OutgoingMessage $message): string
    {
        $domain = substr((string) strrchr((string) config('mail.from.address'), '@'), 1);

        return strtolower($message->id) . '@' . ($domain ?: 'localhost');
    }

    /** @return string|null id of the message a Message-ID of ours is of */
    public static function idOf(string $messageId): ?string
    {
        return preg_match('/^([0-9a-hjkmnp-tv-z]{26})@/i', $messageId, $m) === 1 ? strtoupper($m[1]) : null;
    }

    public static function html(OutgoingMessage $message): string
    {
        return $message->html ?? Html::of($message->text, $message->language);
    }
}
