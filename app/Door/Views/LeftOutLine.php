<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** What was typed and is not invited, and why. */
final readonly class LeftOutLine extends Resource
{
    public function __construct(public string $typed, public string $why) {}
}
