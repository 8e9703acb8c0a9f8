<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Models\OutgoingMessage;
use App\Platform\Instant;
use App\Platform\Resource;

final readonly class MessageLine extends Resource
{
    public function __construct(public string $id, public string $to, public string $subject, public string $text, public string $madeAt)
    {
    }

    public static function of(OutgoingMessage $message): self
    {
        return new self($message->id, $message->to_address, $message->subject, $message->text, Instant::iso($message->made_at));
    }
}
