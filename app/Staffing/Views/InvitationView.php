<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** An invitation as the one invited sees it. */
final readonly class InvitationView extends Resource
{
    /**
     * @param  string  $state invited, accepted, declined, withdrawn or expired
     * @param  list<string>  $powers what the role may do
     */
    public function __construct(
        public string $section,
        public string $school,
        public string $role,
        public string $inviter,
        public string $email,
        public ?string $beginsOn,
        public ?string $endsOn,
        public string $state,
        public bool $hasAccount,
        public bool $signedInAsInvited,
        public string $expiresAt,
        public array $powers,
    ) {}
}
