<?php

declare(strict_types=1);

namespace App\Platform;

use Attribute;

/** The wishes a route takes: in the query for GET, else in the body. */
#[Attribute(Attribute::TARGET_METHOD)]
final readonly class Takes
{
    /** @var list<class-string> */
    public array $wishes;

    /** @param  class-string  ...$wishes see {@see Wishes} */
    public function __construct(string ...$wishes)
    {
        $this->wishes = array_values($wishes);
    }
}
