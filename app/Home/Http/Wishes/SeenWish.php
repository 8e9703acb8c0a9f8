<?php

declare(strict_types=1);

namespace App\Home\Http\Wishes;

use App\Platform\Must;

/** What has been before somebody’s eyes. */
final readonly class SeenWish
{
    /** @param  list<string>  $ids of notices */
    public function __construct(#[Must('max:500', each: 'ulid')] public array $ids) {}
}
