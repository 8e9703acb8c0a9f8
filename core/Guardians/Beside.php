<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Records\GuardianshipState;

/** A guardian on record, beside somebody who asks. */
final readonly class Beside
{
    /** @param  list<string>  $alike what is the same: name, address, telephone */
    public function __construct(
        public string $id,
        public GuardianshipState $state,
        public bool $restricted,
        public array $alike,
    ) {}
}
