<?php

declare(strict_types=1);

namespace App\Ledger;

use Vantrel\Core\Intake\Scope;

/** Whom the plan of an intake has to know: who its rows may be, and who they name. */
final readonly class IntakeNeeds
{
    /**
     * @param  list<string>  $students ids
     * @param  list<string>  $own ids of students the very same list made before
     * @param  list<string>  $numbers student numbers
     * @param  list<string>  $emails of guardians
     * @param  list<string>  $phones of guardians
     * @param  bool  $staff whether the intake names staff or sections
     */
    public function __construct(
        public array $students,
        public array $own,
        public array $numbers,
        public array $emails,
        public array $phones,
        public bool $staff,
        public ?Scope $everyone,
    ) {}
}
