<?php

declare(strict_types=1);

namespace App\Staffing\Views;

use App\Platform\Resource;

/** Invitations that wait for an answer. */
final readonly class OwnInvitations extends Resource
{
    /** @param  list<OwnInvitation>  $invitations oldest first */
    public function __construct(public array $invitations) {}
}
