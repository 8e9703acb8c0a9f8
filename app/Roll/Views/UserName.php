<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

final readonly class UserName extends Resource
{
    public function __construct(
        public string $userName,
        public string $secret,
        public int $cards,
        public ?string $lastSignedIn,
    ) {}
}
