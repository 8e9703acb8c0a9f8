<?php

declare(strict_types=1);

namespace App\PrintRoom\Views;

use App\Platform\Resource;

/** Which slips are out, and which have come back. */
final readonly class SlipList extends Resource
{
    /** @param  list<SlipLine>  $students those whose slips are out first, by name */
    public function __construct(public array $students, public int $out, public int $back) {}
}
