<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

final readonly class MaybeChildren extends Resource
{
    /** @param  list<MaybeChild>  $students likeliest first, at most five */
    public function __construct(public array $students) {}
}
