<?php

declare(strict_types=1);

namespace App\Sections;

use App\Platform\Resource;

/** One section with everything a teacher works with. */
final readonly class SectionDetail extends Resource
{
    /**
     * @param  list<RosterLine>  $roster
     * @param  list<StaffLine>  $staff
     * @param  list<InvitationLine>  $invitations
     */
    public function __construct(
        public string $id,
        public string $schoolId,
        public string $name,
        public string $kind,
        public ?string $grade,
        public string $state,
        public ?string $archivedOn,
        public string $year,
        public bool $hasCode,
        public array $roster,
        public array $staff,
        public array $invitations,
        public bool $canTeach,
        public bool $canArchive,
    ) {
    }
}
