<?php

declare(strict_types=1);

namespace App\Access;

use App\Models\Import;
use App\Models\Invitation;
use App\Models\LedgerEntry;
use App\Models\OutgoingMessage;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;

/**
 * Who may do what. One ability for each kind of thing a route does; every route names one, and a test walks all routes
 * with all roles.
 */
final class Policies
{
    public static function register(): void
    {
        // A signed-in person's own things.
        Gate::define('own', fn (Person $p): bool => $p->state === 'active');
        Gate::define('join', fn (Person $p): bool => $p->state === 'active' && $p->kind === 'student');

        // The school's: coordinators only. Mail with personal addresses, lists, the ledger, the Roll.
        Gate::define('coordinate', fn (Person $p, School $school): bool => self::coordinates($p, $school->id));
        Gate::define('work-import', fn (Person $p, Import $import): bool => self::coordinates($p, $import->school_id));
        Gate::define('work-ledger', fn (Person $p, LedgerEntry $entry): bool => self::coordinates($p, $entry->school_id));
        Gate::define('read-message', fn (Person $p, OutgoingMessage $message): bool => $message->school_id !== null && self::coordinates($p, $message->school_id));
        Gate::define('view-person', fn (Person $p, Person $other): bool => self::coordinates($p, $other->school_id));

        // The school's sections as a whole: its staff see their own of them.
        Gate::define('list-sections', fn (Person $p, School $school): bool => self::coordinates($p, $school->id) || ($p->state === 'active' && $p->kind === 'staff' && $p->school_id === $school->id));

        // One section: an assistant reads and prints, lead and co-teacher work in it, the lead alone archives.
        Gate::define('view-section', fn (Person $p, Section $s): bool => self::coordinates($p, $s->school_id) || self::role($p, $s->id) !== null);
        Gate::define('teach-section', fn (Person $p, Section $s): bool => self::coordinates($p, $s->school_id) || in_array(self::role($p, $s->id), ['lead', 'co_teacher'], true));
        Gate::define('archive-section', fn (Person $p, Section $s): bool => self::coordinates($p, $s->school_id) || self::role($p, $s->id) === 'lead');
        Gate::define('manage-invitation', fn (Person $p, Invitation $i): bool => ($section = Section::query()->find($i->section_id)) !== null && Gate::forUser($p)->allows('teach-section', $section));
    }

    public static function coordinates(Person $person, string $schoolId): bool
    {
        return $person->state === 'active' && $person->kind === 'staff'
            && DB::table('coordinators')->where('person_id', $person->id)->where('school_id', $schoolId)->exists();
    }

    /** What the person is in the section today: lead, co_teacher, assistant, or null. */
    public static function role(Person $person, string $sectionId): ?string
    {
        if ($person->state !== 'active' || $person->kind !== 'staff') {
            return null;
        }
        $role = DB::table('enrollments')->where('section_id', $sectionId)->where('person_id', $person->id)->where('role', '!=', 'student')->whereNull('ends_on')->value('role');

        return is_string($role) ? $role : null;
    }
}
