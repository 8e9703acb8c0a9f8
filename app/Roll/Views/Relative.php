<?php

declare(strict_types=1);

namespace App\Roll\Views;

use App\Platform\Resource;
use Vantrel\Core\Records\GuardianshipState;

final readonly class Relative extends Resource
{
    /** @param  string  $id '' for a student of a school the reader does not coordinate, whose name stays there */
    public function __construct(
        public string $id,
        public string $name,
        public string $email,
        public string $phone,
        public GuardianshipState $state,
    ) {}
}
