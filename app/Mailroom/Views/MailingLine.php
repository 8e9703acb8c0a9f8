<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

/** A letter to many, and what has become of it. */
final readonly class MailingLine extends Resource
{
    /**
     * @param  string  $whom in words
     * @param  int  $texts how many of them as a text
     * @param  int  $amiss how many did not arrive
     */
    public function __construct(
        public string $id,
        public string $subject,
        public string $whom,
        public string $by,
        public string $madeAt,
        public string $goesAt,
        public int $count,
        public int $texts,
        public int $waiting,
        public int $amiss,
        public int $stopped,
    ) {}
}
