<?php

declare(strict_types=1);

namespace Vantrel\Core\Plan;

/** Somebody who comes into a section: as what, from when, and how. */
final readonly class NewEnrollment
{
    /**
     * @param  string  $role of EnrollmentRole
     * @param  string  $source how they come: hand, move, invitation, rollover, code ...
     * @param  string  $beginsOn first day they are in, YYYY-MM-DD
     * @param  string|null  $endsOn first day they are not in any more, where that is known
     * @param  string|null  $codeId of the join code they came by
     * @param  string|null  $cameAt UTC instant, where they came by themselves
     */
    public function __construct(
        public string $sectionId,
        public string $personId,
        public string $role,
        public string $source,
        public string $beginsOn,
        public ?string $endsOn = null,
        public ?string $codeId = null,
        public ?string $cameAt = null,
    ) {}
}
