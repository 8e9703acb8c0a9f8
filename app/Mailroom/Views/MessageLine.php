<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Models\OutgoingMessage;
use App\Platform\Instant;
use App\Platform\Resource;

final readonly class MessageLine extends Resource
{
    public function __construct(
        public string $id,
        public string $to,
        public string $subject,
        public string $text,
        public string $madeAt,
    ) {}

    /**
     * A link or a code in a message is its receiver's: only where all of it is a demo do others follow it from here.
     */
    private static function readable(string $text): string
    {
        return config('vantrel.stand_ins')
            ? $text
            : (string) preg_replace(
                ['~(https?://\S+?#)[A-Za-z0-9_-]{16,}~', '~(?<![\d-])\d{3}-\d{3}(?![\d-])~'],
                ['$1…', '…'],
                $text,
            );
    }

    public static function of(OutgoingMessage $message): self
    {
        return new self(
            $message->id,
            $message->to_address,
            self::readable($message->subject),
            self::readable($message->text),
            Instant::iso($message->made_at),
        );
    }
}
