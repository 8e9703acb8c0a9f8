<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** A link once more, to the address on record or to a new one. */
final readonly class AgainWish
{
    public function __construct(#[Must('max:254')] public ?string $email = null) {}
}
