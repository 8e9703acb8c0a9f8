<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** An invitation and what has become of it. */
final readonly class InvitationLine extends Resource
{
    /** @param  string  $state invited, accepted, declined, withdrawn or expired */
    public function __construct(
        public string $id,
        public string $email,
        public string $role,
        public string $state,
        public string $sentAt,
        public string $expiresAt,
        public ?string $answeredAt,
        public ?string $beginsOn,
        public ?string $endsOn,
    ) {}
}
