<?php

declare(strict_types=1);

namespace App\Guardians\Http\Wishes;

use App\Platform\Must;

/** The codes that were sent to the new address or number, and to the old one where there is one. */
final readonly class ContactCodesWish
{
    public function __construct(#[Must('max:12')] public string $new, #[Must('max:12')] public ?string $old = null) {}
}
