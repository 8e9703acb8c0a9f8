<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;

/** Which messages, and from which on. */
final readonly class MessagesWish
{
    /**
     * @param  string|null  $show amiss or waiting; null for all
     * @param  string|null  $text the beginning of an address, or a part of a subject
     * @param  string|null  $mailing of one letter to many
     * @param  string|null  $person to one person
     */
    public function __construct(
        #[Must('ulid')] public ?string $after = null,
        #[Must('in:amiss,waiting')] public ?string $show = null,
        #[Must('max:120')] public ?string $text = null,
        #[Must('ulid')] public ?string $mailing = null,
        #[Must('ulid')] public ?string $person = null,
    ) {}
}
