<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** An invitation to whoever is signed in. */
final readonly class OwnInvitation extends Resource
{
    /** @param  string|null  $endsOn first day after, for a substitute */
    public function __construct(
        public string $id,
        public string $section,
        public string $school,
        public string $role,
        public string $inviter,
        public ?string $beginsOn,
        public ?string $endsOn,
    ) {}
}
