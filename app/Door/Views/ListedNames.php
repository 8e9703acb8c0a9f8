<?php

declare(strict_types=1);

namespace App\Door\Views;

use App\Platform\Resource;

/** Students of the list whom somebody at the door may be. */
final readonly class ListedNames extends Resource
{
    /**
     * @param  list<ListedName>  $names
     * @param  string  $check birth_date or number: what shows that it is them
     */
    public function __construct(public array $names, public string $check) {}
}
