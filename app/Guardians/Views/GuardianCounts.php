<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** How many ties of guardians and children a school has, and how they stand. */
final readonly class GuardianCounts extends Resource
{
    /**
     * @param  int  $requests that wait, also of those who are nobody on record
     * @param  list<StandingCount>  $standings some stand in several
     */
    public function __construct(public int $all, public int $requests, public array $standings) {}
}
