<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

/** A file that goes with a letter. */
final readonly class LetterFile extends Resource
{
    /** @param  int  $size in bytes */
    public function __construct(public string $id, public string $name, public int $size) {}
}
