<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\YearState;

/** A year of a school: planned, current or closed. */
final readonly class YearChoice extends Resource
{
    public function __construct(public string $id, public string $name, public YearState $state) {}
}
