<?php

declare(strict_types=1);

namespace App\Sections\Views;

use App\Platform\Resource;

final readonly class SectionPage extends Resource
{
    /** @param  list<SectionLine>  $sections */
    public function __construct(public array $sections) {}
}
