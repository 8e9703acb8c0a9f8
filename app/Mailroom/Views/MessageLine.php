<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Mailroom\Secrets;
use App\Models\OutgoingMessage;
use App\Platform\Instant;
use App\Platform\Resource;
use Vantrel\Core\Mailroom\MessageState;

final readonly class MessageLine extends Resource
{
    /**
     * @param  string  $via mail or text
     * @param  string  $kind what it is about
     * @param  string  $problem why it has not gone, or came back; '' where nothing is known
     * @param  bool  $amiss whether somebody has to look
     * @param  list<string>  $files names of those that go with it, where one message is looked at
     * @param  string  $bounced why the last mail to this address came back; '' where none has
     */
    public function __construct(
        public string $id,
        public string $via,
        public string $kind,
        public string $to,
        public ?string $personId,
        public string $subject,
        public string $text,
        public string $madeAt,
        public MessageState $state,
        public string $problem,
        public ?string $sentAt,
        public ?string $nextAt,
        public bool $amiss,
        public string $bounced,
        public array $files,
    ) {}

    /** @param  list<string>  $files */
    public static function of(OutgoingMessage $message, string $bounced, array $files = []): self
    {
        $at = fn(?string $instant): ?string => Instant::isoOrNull($instant);

        return new self(
            $message->id,
            $message->via,
            $message->kind->label(),
            $message->to_address,
            $message->person_id,
            Secrets::forOthers($message->subject),
            Secrets::forOthers($message->text),
            Instant::iso($message->made_at),
            $message->state,
            (string) $message->problem,
            $at($message->sent_at),
            $message->state === MessageState::Waiting ? $at($message->next_at) : null,
            $message->settled_at === null && in_array($message->state, MessageState::amiss(), true),
            $bounced,
            $files,
        );
    }
}
