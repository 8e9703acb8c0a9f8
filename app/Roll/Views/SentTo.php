<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

/** A message to somebody. */
final readonly class SentTo extends Resource
{
    /** @param  string  $problem why it has not gone, or came back; '' where nothing is amiss */
    public function __construct(public string $id, public string $subject, public string $at, public string $problem) {}
}
