<?php

declare(strict_types=1);

namespace App\Door\Http\Wishes;

use App\Platform\Must;

/** A name tapped on a shared device, and the pictures of its owner. */
final readonly class TapWish
{
    /** @param  list<string>  $pictures */
    public function __construct(
        #[Must('max:64')] public string $token,
        #[Must('max:64')] public string $key,
        #[Must('max:3', each: 'string|max:20')] public array $pictures = [],
    ) {}
}
