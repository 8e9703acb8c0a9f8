<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** A guardian without a letter, and the child as they write it. */
final readonly class SoughtLine extends Resource
{
    /**
     * @param  bool  $signedIn whether they asked from an account of their own
     * @param  string  $childBorn YYYY-MM-DD
     */
    public function __construct(
        public string $id,
        public string $name,
        public string $email,
        public string $phone,
        public bool $signedIn,
        public string $child,
        public string $childBorn,
        public string $askedAt,
    ) {}
}
