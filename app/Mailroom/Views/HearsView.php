<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;
use Vantrel\Core\Guardians\Hears;

/** How often somebody hears from a school; nothing of who they are. */
final readonly class HearsView extends Resource
{
    /** @param  int  $hour of the school's clock */
    public function __construct(public string $school, public Hears $often, public int $hour) {}
}
