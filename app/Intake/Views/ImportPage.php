<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

final readonly class ImportPage extends Resource
{
    /**
     * @param  list<ImportLine>  $imports newest first
     * @param  int  $mostStudents that one list can name
     * @param  int  $mostMegabytes that can be brought in at a time
     */
    public function __construct(public array $imports, public int $mostStudents, public int $mostMegabytes) {}
}
