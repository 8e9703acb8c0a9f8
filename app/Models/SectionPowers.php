<?php

declare(strict_types=1);

namespace App\Models;

use App\Platform\SchoolDay;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\Reach;
use Vantrel\Core\Staffing\StaffRole;

/** What somebody may do in a section today, asked once for all of it. */
final readonly class SectionPowers
{
    private function __construct(private bool $coordinates, private ?StaffRole $role, private SectionState $state) {}

    public static function of(Person $person, Section $section): self
    {
        $coordinates = Coordinators::has($person, $section->school_id);

        return new self(
            $coordinates,
            // Who coordinates may do everything there, whatever they are in it.
            $coordinates ? null : self::role($person, $section),
            SectionState::from($section->state),
        );
    }

    public function may(Power $power): bool
    {
        return Reach::intoSection($this->coordinates, $this->role, $this->state, $power);
    }

    /** @return list<Power> */
    public function all(): array
    {
        return array_values(array_filter(Power::cases(), $this->may(...)));
    }

    private static function role(Person $person, Section $section): ?StaffRole
    {
        if ($person->state !== 'active' || $person->kind !== 'staff') {
            return null;
        }
        $role = DB::table('enrollments as e')
            ->where('section_id', $section->id)
            ->where('person_id', $person->id)
            ->where('role', '!=', 'student')
            ->where(SchoolDay::inForce('e', SchoolDay::today($section->school_id)))
            ->value('role');

        return is_string($role) ? StaffRole::from($role) : null;
    }
}
