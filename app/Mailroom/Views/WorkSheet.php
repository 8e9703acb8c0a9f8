<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

final readonly class WorkSheet extends Resource
{
    /** @param  list<WorkLine>  $students of the section now, by name */
    public function __construct(public string $title, public array $students) {}
}
