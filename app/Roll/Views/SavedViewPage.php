<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

final readonly class SavedViewPage extends Resource
{
    /** @param  list<SavedView>  $views by name: the school's and one's own */
    public function __construct(public array $views) {}
}
