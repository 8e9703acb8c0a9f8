<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

final readonly class PersonPage extends Resource
{
    /** @param  list<PersonLine>  $people */
    public function __construct(public array $people, public ?string $next, public int $total) {}
}
