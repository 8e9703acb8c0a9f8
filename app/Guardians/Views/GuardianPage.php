<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** Guardians of a school's students, by the name of the child. */
final readonly class GuardianPage extends Resource
{
    /**
     * @param  list<GuardianLine>  $lines
     * @param  int|null  $next from where the next page goes on; null on the last
     * @param  list<StandingCount>  $counts of the whole school, on the first page
     */
    public function __construct(public array $lines, public ?int $next, public int $total, public array $counts) {}
}
