<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;

final readonly class IntakeList extends Resource
{
    /**
     * @param  list<IntakeLine>  $intakes newest first
     * @param  int  $mostStudents that one list can name
     * @param  int  $mostMegabytes that can be brought in at a time
     */
    public function __construct(public array $intakes, public int $mostStudents, public int $mostMegabytes) {}
}
