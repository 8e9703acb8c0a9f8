<?php

declare(strict_types=1);

namespace App\Settings\Views;

use App\Platform\Resource;

/** Names as a pattern would make them. */
final readonly class NamesExample extends Resource
{
    /** @param  list<string>  $names */
    public function __construct(public array $names) {}
}
