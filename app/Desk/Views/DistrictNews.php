<?php

declare(strict_types=1);

namespace App\Desk\Views;

use App\Platform\Resource;

final readonly class DistrictNews extends Resource
{
    /** @param  string  $schoolId where it stands in the Ledger; of an entry of several, the one it was made at */
    public function __construct(public string $schoolId, public NewsLine $line) {}
}
