<?php

declare(strict_types=1);

namespace App\Platform;

use Attribute;

/**
 * What a route takes: name to type, a trailing `?` on the name for what may be left out. Types: string, int, bool,
 * file, list<string>, map<string>, or alternatives such as `reading|cut_stack`. In the query for GET, else in the body.
 */
#[Attribute(Attribute::TARGET_METHOD)]
final readonly class Takes
{
    /** @param  array<string, string>  $fields */
    public function __construct(public array $fields) {}
}
