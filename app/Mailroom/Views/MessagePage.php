<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

final readonly class MessagePage extends Resource
{
    /** @param  list<MessageLine>  $messages newest first */
    public function __construct(public array $messages, public ?string $next) {}
}
