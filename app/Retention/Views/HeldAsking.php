<?php

declare(strict_types=1);

namespace App\Retention\Views;

use App\Platform\Resource;

/** A guardian who asks what is held about their child. */
final readonly class HeldAsking extends Resource
{
    public function __construct(
        public string $id,
        public string $guardian,
        public string $student,
        public string $askedAt,
    ) {}
}
