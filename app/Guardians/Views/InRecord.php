<?php

declare(strict_types=1);

namespace App\Guardians\Views;

use App\Platform\Resource;

/** Guardians of a student in the school's record, beside whoever asks. */
final readonly class InRecord extends Resource
{
    /** @param  list<OnRecord>  $guardians */
    public function __construct(public array $guardians) {}
}
