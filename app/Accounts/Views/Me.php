<?php

declare(strict_types=1);

namespace App\Accounts\Views;

use App\Accounts\CredentialWay;
use App\Accounts\MustFinish;
use App\Accounts\Opened;
use App\Models\Person;
use App\Models\StaffStanding;
use App\Platform\GradeChoice;
use App\Platform\Resource;
use App\Platform\SchoolDay;
use App\Rosters\Children;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
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
        $opened = request()->hasSession() ? Opened::of(request()->session()) : null;
        $room =
            $opened?->way === CredentialWay::RoomPass
                ? DB::table('room_passes as r')
                    ->join('sections as s', 's.id', '=', 'r.section_id')
                    ->where('r.id', $opened->id)
                    ->value('s.name')
                : '';

        $has = DB::query()
            ->selectSub(
                DB::table('sign_ins')->where('person_id', $person->id)->whereNotNull('password')->selectRaw('COUNT(*)'),
                'passwords',
            )
            ->selectSub($person->kind === 'student' ? '0' : Children::ties($person)->selectRaw('COUNT(*)'), 'children')
            ->first();

        return new self(
            $person->id,
            $person->fullName(),
            PersonKind::from($person->kind),
            $person->kind === 'staff' ? self::schools($person) : [],
            app(MustFinish::class)->must(request()),
            is_string($room) ? $room : '',
            (int) $has?->passwords > 0,
            (int) $has?->children,
        );
    }

    /** @return list<SchoolChoice> those they belong to, coordinate, or were invited into a section of */
    private static function schools(Person $person): array
    {
        $coordinated = StaffStanding::of($person)->schools;
        $invited = DB::table('enrollments as e')
            ->join('sections as x', 'x.id', '=', 'e.section_id')
            ->where('e.person_id', $person->id)
            ->where('e.role', '!=', 'student')
            ->where(SchoolDay::inForce('e', SchoolDay::today($person->school_id)))
            ->select('x.school_id');
        $rows = DB::table('schools as s')
            ->leftJoin('school_years as y', 'y.school_id', '=', 's.id')
            ->where(
                fn(Builder $q) => $q
                    ->whereIn('s.id', [...$coordinated, $person->school_id])
                    ->orWhereIn('s.id', $invited),
            )
            ->orderBy('s.lowest_grade')
            ->orderBy('s.name')
            ->orderByDesc('y.begins_on')
            ->get([
                's.id',
                's.code',
                's.name',
                's.lowest_grade',
                's.highest_grade',
                'y.id as y',
                'y.name as year',
                'y.state',
            ]);

        return array_values(
            $rows
                ->groupBy('id')
                ->map(function (Collection $years) use ($coordinated): SchoolChoice {
                    $s = $years->firstOrFail();
                    $current = $years->firstWhere('state', YearState::Current->value);

                    return new SchoolChoice(
                        $s->id,
                        $s->code,
                        $s->name,
                        (string) $current?->y,
                        (string) $current?->year,
                        in_array($s->id, $coordinated, true),
                        $s->lowest_grade,
                        $s->highest_grade,
                        GradeChoice::between($s->lowest_grade, $s->highest_grade),
                        array_values(
                            $years
                                ->whereNotNull('y')
                                ->map(
                                    fn(stdClass $y): YearChoice => new YearChoice(
                                        $y->y,
                                        $y->year,
                                        YearState::from($y->state),
                                    ),
                                )
                                ->all(),
                        ),
                    );
                })
                ->all(),
        );
    }
}
