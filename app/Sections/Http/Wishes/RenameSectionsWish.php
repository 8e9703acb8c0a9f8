<?php

declare(strict_types=1);

namespace App\Sections\Http\Wishes;

use App\Platform\Must;

/** Words in the names of sections, and what stands instead; in the current year where none is named. */
final readonly class RenameSectionsWish
{
    public function __construct(
        #[Must('max:80')] public string $words,
        #[Must('max:80')] public string $instead = '',
        #[Must('ulid')] public ?string $year = null,
    ) {}
}
