<?php

declare(strict_types=1);

namespace App\Intake\Http\Wishes;

use App\Platform\Must;

/** Where the school's record is, and inside which limits it is brought in with nobody looking. */
final readonly class RecordWish
{
    /** @param  string|null  $clientSecret null for the one that is kept */
    public function __construct(
        #[Must('max:300')] public string $baseUrl,
        #[Must('max:300')] public string $tokenUrl,
        #[Must('max:200')] public string $clientId,
        #[Must('max:500')] public ?string $clientSecret = null,
        public bool $nightly = false,
        #[Must('min:0|max:100000')] public int $mostNew = 30,
        #[Must('min:0|max:100000')] public int $mostChanged = 200,
    ) {}
}
