<?php

declare(strict_types=1);

namespace App\Sections\Views;

use App\Platform\Resource;

/** A section as its students see it. */
final readonly class StudentSection extends Resource
{
    /** @param  list<string>  $teachers */
    public function __construct(public string $name, public array $teachers) {}
}
