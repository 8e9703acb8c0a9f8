<?php

declare(strict_types=1);

namespace App\Settings\Views;

use App\Platform\Resource;

/** How the students of one grade sign in. */
final readonly class GradeWay extends Resource
{
    /** @param  string  $way card, passphrase, own or school */
    public function __construct(public string $grade, public string $label, public string $way) {}
}
