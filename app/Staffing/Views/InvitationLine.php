<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;
use Vantrel\Core\Staffing\InvitationStanding;

/** An invitation and what has become of it. */
final readonly class InvitationLine extends Resource
{
    public function __construct(
        public string $id,
        public string $email,
        public string $role,
        public InvitationStanding $state,
        public string $sentAt,
        public string $expiresAt,
        public ?string $answeredAt,
        public ?string $beginsOn,
        public ?string $endsOn,
    ) {}
}
