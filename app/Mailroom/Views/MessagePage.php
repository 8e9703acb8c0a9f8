<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

final readonly class MessagePage extends Resource
{
    /**
     * @param  list<MessageLine>  $messages newest first
     * @param  int  $amiss how many of the school somebody has to look at
     * @param  int  $waiting how many have yet to go
     * @param  string  $narrowed to which letter or person the list is narrowed, '' where it is not
     */
    public function __construct(
        public array $messages,
        public ?string $next,
        public int $amiss,
        public int $waiting,
        public string $narrowed,
    ) {}
}
