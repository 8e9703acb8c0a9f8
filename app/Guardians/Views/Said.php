<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** What has just been done, in a sentence. */
final readonly class Said extends Resource
{
    public function __construct(public string $said) {}
}
