<?php

declare(strict_types=1);

namespace App\Retention\Views;

use App\Platform\Resource;

/** Guardians who ask what is held, those who wait. */
final readonly class HeldAskings extends Resource
{
    /**
     * @param  list<HeldAsking>  $askings
     * @param  string  $said what has just been done, in a sentence
     */
    public function __construct(public array $askings, public string $said) {}
}
