<?php

declare(strict_types=1);

namespace App\OneRoster\Views;

use App\Platform\Resource;

/** The keys of a school's programs, those that work first. */
final readonly class KeyPage extends Resource
{
    /**
     * @param  list<KeyLine>  $keys
     * @param  string  $base address of the service
     * @param  string  $token address where a key is exchanged for a token
     * @param  string  $secret of the key just made, shown this once; '' otherwise
     * @param  string  $made id of the key just made; '' otherwise
     */
    public function __construct(
        public array $keys,
        public string $base,
        public string $token,
        public string $secret,
        public string $made,
    ) {}
}
