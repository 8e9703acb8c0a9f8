<?php

declare(strict_types=1);

namespace App\Settings\Views;

use App\Platform\Resource;
use Vantrel\Core\Accounts\Way;

/** How the students of one grade sign in. */
final readonly class GradeWay extends Resource
{
    public function __construct(public string $grade, public string $label, public Way $way) {}
}
