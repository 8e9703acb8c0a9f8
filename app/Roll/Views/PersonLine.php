<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;

final readonly class PersonLine extends Resource
{
    public function __construct(
        public string $id,
        public string $name,
        public string $goesBy,
        public PersonKind $kind,
        public string $grade,
        public string $number,
        public string $sections,
        public string $userName,
        public string $email,
        public PersonState $state,
        public bool $signedIn,
        public int $guardians,
        public string $schoolId,
    ) {}
}
