<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** A passkey, as its owner knows it. */
final readonly class PasskeyLine extends Resource
{
    /**
     * @param  string  $name what its owner calls it
     * @param  string|null  $lastUsed null for never
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $madeAt,
        public ?string $lastUsed,
    ) {}
}
