<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

/** Whom a pasted list means. */
final readonly class NamedPage extends Resource
{
    /**
     * @param  list<PersonLine>  $people each once, in the order of the list
     * @param  list<string>  $nobody lines that mean nobody
     * @param  list<string>  $several lines that could be more than one, who are left out
     */
    public function __construct(public array $people, public array $nobody, public array $several) {}
}
