<?php

declare(strict_types=1);

namespace App\Intake;

use App\Platform\Resource;

final readonly class ImportPage extends Resource
{
    /** @param  list<ImportLine>  $imports newest first */
    public function __construct(public array $imports)
    {
    }
}
