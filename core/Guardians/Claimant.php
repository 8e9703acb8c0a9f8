<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Records\Person;

/** Who says to be a guardian. */
final readonly class Claimant
{
    /**
     * @param  string  $email in its canonical form
     * @param  string|null  $phone in E.164
     * @param  Person|null  $person who they are signed in as
     */
    public function __construct(
        public PersonName $name,
        public string $email,
        public ?string $phone = null,
        public ?Person $person = null,
    ) {}
}
