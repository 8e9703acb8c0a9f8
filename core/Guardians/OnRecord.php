<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;

/** A guardian the school has on record for a student, and what ties them. */
final readonly class OnRecord
{
    public function __construct(public Person $person, public Guardianship $link) {}
}
