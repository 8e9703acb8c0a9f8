<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** Guardian requests, those who wait first. */
final readonly class ClaimPage extends Resource
{
    /**
     * @param  list<ClaimLine>  $claims
     * @param  string  $said what has just been done, in a sentence
     */
    public function __construct(public array $claims, public string $said) {}
}
