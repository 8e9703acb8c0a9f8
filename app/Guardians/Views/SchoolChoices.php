<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** Schools that somebody without a letter can ask. */
final readonly class SchoolChoices extends Resource
{
    /** @param  list<SchoolChoice>  $schools by name */
    public function __construct(public array $schools) {}
}
