<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;

/** For whom a link sets a new password. */
final readonly class ResetView extends Resource
{
    public function __construct(public string $userName) {}
}
