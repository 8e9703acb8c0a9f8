<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** What the code of a letter shows to whoever holds it: the school and the child's given name, and no more. */
final readonly class FamilyView extends Resource
{
    public function __construct(public string $school, public string $student) {}
}
