<?php

declare(strict_types=1);

namespace App\Staffing\Http\Wishes;

use App\Platform\Must;

/** Whom to invite, as what, and a substitute from when to when. */
final readonly class InvitationWish
{
    public function __construct(
        #[Must('max:4000')] public string $email,
        #[Must('in:co_teacher,assistant,substitute')] public string $role,
        #[Must('date_format:Y-m-d')] public ?string $beginsOn = null,
        #[Must('date_format:Y-m-d')] public ?string $endsOn = null,
    ) {}
}
