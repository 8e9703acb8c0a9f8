<?php

declare(strict_types=1);

namespace App\LookAlikes\Views;

use App\Platform\Resource;

final readonly class AccountLine extends Resource
{
    /** @param  string  $detail grade, sections, number, or what else tells them apart */
    public function __construct(
        public string $id,
        public string $name,
        public string $schoolId,
        public string $detail,
    ) {}
}
