<?php

declare(strict_types=1);

namespace App\Home\Http\Wishes;

use App\Platform\Must;

final readonly class HomeWish
{
    /** @param  string|null  $language the page is read in */
    public function __construct(#[Must('in:en,es,fr,ar,vi,uk,zh')] public ?string $language = null) {}
}
