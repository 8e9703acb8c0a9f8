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
     */
    public function __construct(public array $lines, public ?int $next) {}
}
