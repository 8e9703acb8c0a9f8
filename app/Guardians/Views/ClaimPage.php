<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** Guardian requests, those who wait first. */
final readonly class ClaimPage extends Resource
{
    /**
     * @param  list<ClaimLine>  $claims
     * @param  list<SoughtLine>  $sought of those without a letter whose child is to be found, the first of them first
     * @param  string  $said what has just been done, in a sentence
     */
    public function __construct(public array $claims, public array $sought, public string $said) {}
}
