<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;
use Vantrel\Core\Staffing\InvitationStanding;

/** An invitation as the one invited sees it. */
final readonly class InvitationView extends Resource
{
    /**
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
        public InvitationStanding $state,
        public bool $hasAccount,
        public bool $signedInAsInvited,
        public string $expiresAt,
        public array $powers,
    ) {}
}
