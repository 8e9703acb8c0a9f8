<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** What came of following a link. */
final readonly class LinkAnswer extends Resource
{
    /** @param  bool  $waits whether the school looks first */
    public function __construct(public bool $waits, public bool $signedIn) {}
}
