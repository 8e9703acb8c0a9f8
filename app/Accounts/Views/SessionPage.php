<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

final readonly class SessionPage extends Resource
{
    /** @param  list<SessionLine>  $sessions latest first */
    public function __construct(public array $sessions) {}
}
