<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** Invitations of the last days, newest first. */
final readonly class InviteRuns extends Resource
{
    /** @param  list<InviteRunLine>  $runs */
    public function __construct(public array $runs) {}
}
