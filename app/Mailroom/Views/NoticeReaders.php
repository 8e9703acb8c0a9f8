<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

final readonly class NoticeReaders extends Resource
{
    /** @param  list<string>  $names who has seen it, by name */
    public function __construct(public array $names) {}
}
