<?php

declare(strict_types=1);

namespace App\Retention\Views;

use App\Platform\Resource;

/** A child, and whether their guardian has asked what is held about them. */
final readonly class OwnHeldChild extends Resource
{
    /**
     * @param  string  $state '' for not asked, waiting, given or refused
     * @param  string|null  $until when what was given can be fetched no more
     */
    public function __construct(public string $id, public string $name, public string $state, public ?string $until) {}
}
