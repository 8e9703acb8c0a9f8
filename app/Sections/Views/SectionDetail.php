<?php

declare(strict_types=1);

namespace App\Sections\Views;

use App\Door\Views\RoomPassLine;
use App\Platform\Resource;
use App\Staffing\Views\InvitationLine;
use App\Staffing\Views\StaffLine;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Records\SectionState;

/** One section with everything a teacher works with. */
final readonly class SectionDetail extends Resource
{
    /**
     * @param  string  $asOf the day the roster is of
     * @param  list<RosterLine>  $roster
     * @param  list<StaffLine>  $staff
     * @param  list<InvitationLine>  $invitations
     * @param  int  $waiting newcomers who wait to be let in
     * @param  list<string>  $powers what the reader may do here now
     */
    public function __construct(
        public string $id,
        public string $schoolId,
        public string $name,
        public SectionKind $kind,
        public ?string $grade,
        public string $period,
        public ?int $seats,
        public SectionState $state,
        public ?string $archivedOn,
        public string $year,
        public string $asOf,
        public bool $today,
        public bool $hasCode,
        public array $roster,
        public array $staff,
        public array $invitations,
        public ?RoomPassLine $roomPass,
        public int $waiting,
        public array $powers,
    ) {}
}
