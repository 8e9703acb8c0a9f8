<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Accounts\CredentialWay;
use App\Accounts\MustFinish;
use App\Accounts\Opened;
use App\Models\Person;
use App\Platform\GradeChoice;
use App\Platform\Resource;
use App\Platform\SchoolDay;
use App\Rosters\Children;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\YearState;

/** Who is signed in and where they can work. */
final readonly class Me extends Resource
{
    /**
     * @param  list<SchoolChoice>  $schools
     * @param  string  $must '' or password or second_factor: what has to be done before anything else
     * @param  bool  $ownPassword whether they have a password of their own, to be changed
     * @param  int  $children how many they are connected with as a guardian
     * @param  string  $room name of the section whose room pass opened this session, '' for none
     */
    public function __construct(
        public string $id,
        public string $name,
        public PersonKind $kind,
        public array $schools,
        public string $must,
        public string $room,
        public bool $ownPassword,
        public int $children,
    ) {}

    public static function of(Person $person): self
    {
        $coordinated = DB::table('coordinators')
            ->where('person_id', $person->id)
            ->where('state', 'active')
            ->pluck('school_id')
            ->all();
        $years = [];
        foreach (
            DB::table('school_years')
                ->orderByDesc('begins_on')
                ->get(['id', 'school_id', 'name', 'state'])
            as $year
        ) {
            $years[$year->school_id][] = new YearChoice($year->id, $year->name, YearState::from($year->state));
        }
        // Staff also work where they were invited, in other schools of the district.
        $invited =
            $person->kind !== 'staff'
                ? []
                : DB::table('enrollments as e')
                    ->join('sections as s', 's.id', '=', 'e.section_id')
                    ->where('e.person_id', $person->id)
                    ->where('e.role', '!=', 'student')
                    ->where(SchoolDay::inForce('e', SchoolDay::today($person->school_id)))
                    ->distinct()
                    ->pluck('s.school_id')
                    ->all();
        $schools =
            $person->kind !== 'staff'
                ? []
                : DB::table('schools as s')
                    ->leftJoin(
                        'school_years as y',
                        fn($j) => $j->on('y.school_id', '=', 's.id')->where('y.state', 'current'),
                    )
                    ->whereIn('s.id', [...$coordinated, ...$invited, $person->school_id])
                    ->orderBy('s.lowest_grade')
                    ->orderBy('s.name')
                    ->get([
                        's.id',
                        's.code',
                        's.name',
                        's.lowest_grade',
                        's.highest_grade',
                        'y.id as year_id',
                        'y.name as year',
                    ])
                    ->map(
                        fn(object $s): SchoolChoice => new SchoolChoice(
                            $s->id,
                            $s->code,
                            $s->name,
                            (string) $s->year_id,
                            (string) $s->year,
                            in_array($s->id, $coordinated, true),
                            $s->lowest_grade,
                            $s->highest_grade,
                            GradeChoice::between($s->lowest_grade, $s->highest_grade),
                            $years[$s->id] ?? [],
                        ),
                    )
                    ->all();
        $opened = request()->hasSession() ? Opened::of(request()->session()) : null;
        $room =
            $opened?->way === CredentialWay::RoomPass
                ? DB::table('room_passes as r')
                    ->join('sections as s', 's.id', '=', 'r.section_id')
                    ->where('r.id', $opened->id)
                    ->value('s.name')
                : '';

        return new self(
            $person->id,
            $person->fullName(),
            PersonKind::from($person->kind),
            array_values($schools),
            app(MustFinish::class)->must(request()),
            is_string($room) ? $room : '',
            DB::table('sign_ins')->where('person_id', $person->id)->whereNotNull('password')->exists(),
            $person->kind === 'student' ? 0 : count(Children::of($person)),
        );
    }
}
