<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

/** What came from the school's record. */
final readonly class Pulled extends Resource
{
    /**
     * @param  string|null  $intake id of the list it became; null where nothing was to be brought in, or it is asked
     * @param  bool  $asking whether it is being asked: what comes of it stands with the record
     */
    public function __construct(public ?string $intake, public string $said, public bool $asking) {}
}
