<?php

declare(strict_types=1);

namespace App\Wiring;

use App\Accounts\CredentialWay;
use App\Accounts\Opened;
use App\Models\Coordinators;
use App\Models\Intake;
use App\Models\Invitation;
use App\Models\LedgerEntry;
use App\Models\OutgoingMessage;
use App\Models\Person;
use App\Models\PrintRun;
use App\Models\Realm;
use App\Models\School;
use App\Models\SchoolYear;
use App\Models\Section;
use App\Models\SectionPowers;
use App\Models\StaffStanding;
use App\Platform\SchoolDay;
use Illuminate\Auth\Access\Response;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\Reach;
use Vantrel\Core\Staffing\StaffRole;

/**
 * Who may do what. One ability for each kind of thing a route does; every route names one, and a test walks all routes
 * with all roles. What the roles of a section may do stands in {@see StaffRole::may()}.
 */
final class Policies
{
    public static function register(): void
    {
        // A signed-in person's own things; those that change how they sign in are not for a device that a room pass
        // opened.
        Gate::define('own', fn(Person $p): bool => $p->state === 'active' || $p->state === 'reserve');
        Gate::define('own-secrets', fn(Person $p): bool => $p->state === 'active' && !self::onRoomPass());
        Gate::define('second-factor', fn(Person $p): bool => $p->state === 'active' && $p->kind === 'staff');
        Gate::define(
            'connect-child',
            fn(Person $p): bool => $p->state === 'active' && $p->kind !== 'student' && !self::onRoomPass(),
        );
        Gate::define('join', fn(Person $p): bool => $p->state === 'active' && $p->kind === 'student');

        // The school's: coordinators only. Mail with personal addresses, lists, the ledger, the Roll.
        Gate::define('coordinate', fn(Person $p, School $school): bool => Coordinators::has($p, $school->id));
        // The same of several schools at once: all of them.
        Gate::define(
            'oversee',
            fn(Person $p, Realm $realm): bool => $realm->ids !== [] &&
                array_filter($realm->ids, fn(string $school): bool => !Coordinators::has($p, $school)) === [],
        );
        Gate::define(
            'coordinate-year',
            fn(Person $p, SchoolYear $year): bool => Coordinators::has($p, $year->school_id),
        );
        Gate::define('work-intake', fn(Person $p, Intake $intake): bool => self::worksIntake($p, $intake));
        Gate::define(
            'read-ledger',
            fn(Person $p, LedgerEntry $entry): bool => array_intersect(
                $entry->schools(),
                StaffStanding::of($p)->schools,
            ) !== [],
        );
        // What is undone is undone at every school that it concerns.
        Gate::define(
            'work-ledger',
            fn(Person $p, LedgerEntry $entry): Response => match (
                count(array_diff($entry->schools(), StaffStanding::of($p)->schools))
            ) {
                0 => Response::allow(),
                count($entry->schools()) => Response::deny(),
                default => Response::deny(
                    'It concerns another school too. Somebody who coordinates every school in it can undo it.',
                ),
            },
        );
        Gate::define(
            'read-message',
            fn(Person $p, OutgoingMessage $message): bool => $message->school_id !== null &&
                Coordinators::has($p, $message->school_id),
        );
        // Passphrases stand on it: it is read by whoever printed it, as long as they may print there.
        Gate::define(
            'read-print',
            fn(Person $p, PrintRun $print): bool => $print->person_id === $p->id &&
                ($print->section_id === null
                    ? Coordinators::has($p, $print->school_id)
                    : ($section = Section::query()->find($print->section_id)) !== null &&
                        SectionPowers::of($p, $section)->may(Power::PrintCards)),
        );
        Gate::define('view-person', fn(Person $p, Person $other): bool => Coordinators::has($p, $other->school_id));

        // The school's sections as a whole: its staff see their own of them.
        Gate::define(
            'list-sections',
            fn(Person $p, School $school): bool => self::works($p) &&
                Reach::listsSections(
                    Coordinators::has($p, $school->id),
                    $p->school_id,
                    $school->id,
                    self::teachesAt($p, $school->id, StaffRole::cases()),
                ),
        );

        // Colleagues and their addresses: for those who may ask one into a section, today.
        Gate::define(
            'list-staff',
            fn(Person $p, School $school): bool => Coordinators::has($p, $school->id) ||
                (self::works($p) && self::teachesAt($p, $school->id, Reach::findsColleagues(), open: true)),
        );

        // One section: by what its roles may do.
        foreach (Power::cases() as $power) {
            Gate::define($power->value, fn(Person $p, Section $s): bool => SectionPowers::of($p, $s)->may($power));
        }
        Gate::define(
            'answer-invitation',
            fn(Person $p, Invitation $i): bool => $p->state === 'active' &&
                $p->kind === 'staff' &&
                $p->email === $i->email &&
                $p->addressCountsIn((string) Section::query()->whereKey($i->section_id)->value('school_id')),
        );
        Gate::define(
            'manage-invitation',
            fn(Person $p, Invitation $i): bool => ($section = Section::query()->find($i->section_id)) !== null &&
                SectionPowers::of($p, $section)->may(Power::InviteStaff),
        );
    }

    /** A plan that speaks of other schools' people is for those who coordinate these too. */
    private static function worksIntake(Person $person, Intake $intake): bool
    {
        $others = array_filter((array) ($intake->summary['schools'] ?? []), is_string(...));

        return Coordinators::has($person, $intake->school_id) &&
            array_diff($others, $others === [] ? [] : StaffStanding::of($person)->schools) === [];
    }

    private static function works(Person $person): bool
    {
        return $person->state === 'active' && $person->kind === 'staff';
    }

    /** @param  list<StaffRole>  $roles any of which they have in a section of the school today */
    private static function teachesAt(Person $person, string $schoolId, array $roles, bool $open = false): bool
    {
        return DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->where('e.person_id', $person->id)
            ->where('s.school_id', $schoolId)
            ->when($open, fn(Builder $q): Builder => $q->where('s.state', 'open'))
            ->whereIn('e.role', array_map(fn(StaffRole $r): string => $r->value, $roles))
            ->where(SchoolDay::inForce('e', SchoolDay::today($schoolId)))
            ->exists();
    }

    private static function onRoomPass(): bool
    {
        return request()->hasSession() && Opened::of(request()->session())?->way === CredentialWay::RoomPass;
    }
}
