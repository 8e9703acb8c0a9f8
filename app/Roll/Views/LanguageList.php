<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

final readonly class LanguageList extends Resource
{
    /** @param  list<LanguageChoice>  $languages those the product writes in first, then by name */
    public function __construct(public array $languages) {}
}
