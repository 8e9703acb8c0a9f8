<?php

declare(strict_types=1);

namespace App\Mailroom\Http\Wishes;

use App\Platform\Must;

/** From which message on. */
final readonly class MessagesWish
{
    public function __construct(#[Must('ulid')] public ?string $after = null) {}
}
