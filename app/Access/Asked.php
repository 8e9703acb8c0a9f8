<?php

declare(strict_types=1);

namespace App\Access;

use App\Platform\Resource;

/** What has become of a request to come in. */
final readonly class Asked extends Resource
{
    /**
     * @param  string  $state mail, waiting, approved, refused or none
     * @param  string  $userName once approved
     */
    public function __construct(public string $state, public string $section, public string $userName)
    {
    }
}
