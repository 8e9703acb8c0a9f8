<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\PersonName;

/** A guardian as one row of a list names them. E-mail, phone and relationship are '' where the list has none. */
final readonly class GuardianLine
{
    public function __construct(
        public PersonName $name,
        public string $email,
        public string $phone,
        public string $relationship = '',
    ) {}
}
