<?php

declare(strict_types=1);

namespace App\PrintRoom\Http\Wishes;

use App\Platform\Must;

final readonly class SectionsWish
{
    /** @param  list<string>  $sectionIds */
    public function __construct(#[Must('min:1|max:300', each: 'ulid')] public array $sectionIds) {}
}
