<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;

/** A language that families are written to in. */
final readonly class LanguageChoice extends Resource
{
    /** @param  bool  $written whether the product writes in it; in the others, English stands in */
    public function __construct(public string $code, public string $name, public bool $written) {}
}
