<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\WorkState;

/** Whether one student has handed work in. */
final readonly class WorkLine extends Resource
{
    /** @param  WorkState|null  $state null where nobody has gone through it */
    public function __construct(public string $personId, public string $name, public ?WorkState $state) {}
}
