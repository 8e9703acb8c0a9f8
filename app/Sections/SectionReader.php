<?php

declare(strict_types=1);

namespace App\Sections;

use App\Door\Views\RoomPassLine;
use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Models\Section;
use App\Models\SectionPowers;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use App\Sections\Views\RosterLine;
use App\Sections\Views\SectionDetail;
use App\Sections\Views\SectionLine;
use App\Staffing\Views\InvitationLine;
use App\Staffing\Views\StaffLine;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Records\InvitationState;
use Vantrel\Core\Records\PassHours;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Sections\Periods;
use Vantrel\Core\Staffing\InvitationStanding;
use Vantrel\Core\Staffing\Power;
use Vantrel\Core\Staffing\StaffRole;
use Vantrel\Core\Values\GradeLevel;

/** Reads sections for the screens, in a fixed number of queries whatever their size. */
final class SectionReader
{
    /** @return list<SectionLine> all of the school's year for its coordinators, the own ones for other staff */
    public function list(School $school, SchoolYear $year, Person $reader): array
    {
        $today = SchoolDay::today($school->id);
        $own = Coordinators::has($reader, $school->id)
            ? null
            : DB::table('enrollments as e')
                ->where('person_id', $reader->id)
                ->where('role', '!=', 'student')
                ->where(SchoolDay::inForce('e', $today))
                ->pluck('section_id')
                ->all();
        $sections = DB::table('sections as s')
            ->where('s.school_year_id', $year->id)
            ->where('s.school_id', $school->id)
            ->when($own !== null, fn($q) => $q->whereIn('s.id', $own ?? []))
            ->leftJoin('join_codes as c', fn($j) => $j->on('c.section_id', '=', 's.id')->where('c.state', 'open'))
            ->get(['s.id', 's.name', 's.kind', 's.grade', 's.period', 's.seats', 's.state', 'c.id as code_id']);
        $counts = $this->counts($sections->pluck('id'), $today);
        $leads = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->whereIn('e.section_id', $sections->pluck('id'))
            ->where('e.role', 'lead')
            ->where(SchoolDay::inForce('e', $today))
            ->selectRaw("e.section_id, TRIM(CONCAT(p.given_name, ' ', p.family_name)) n")
            ->pluck('n', 'section_id');
        $waiting = DB::table('join_requests')
            ->whereIn('section_id', $sections->pluck('id'))
            ->where('state', 'waiting')
            ->groupBy('section_id')
            ->selectRaw('section_id, count(*) n')
            ->pluck('n', 'section_id');
        $clashes = $this->clashes($sections->pluck('id'), $today)->countBy('section_id');

        return array_values(
            $sections
                ->map(
                    fn(object $s): SectionLine => new SectionLine(
                        $s->id,
                        $s->name,
                        SectionKind::from($s->kind),
                        GradeLevel::read((string) $s->grade)?->short(),
                        SectionState::from($s->state),
                        (string) ($leads[$s->id] ?? ''),
                        (string) $s->period,
                        $s->seats === null ? null : (int) $s->seats,
                        (int) ($counts[$s->id]->students ?? 0),
                        (int) ($counts[$s->id]->signed_in ?? 0),
                        (int) ($counts[$s->id]->with_card ?? 0),
                        $s->code_id !== null,
                        $year->name,
                        (int) ($waiting[$s->id] ?? 0),
                        (int) ($clashes[$s->id] ?? 0),
                    ),
                )
                ->sort(
                    fn(SectionLine $a, SectionLine $b): int => [$a->kind === SectionKind::Homeroom ? 0 : 1] <=> [
                        $b->kind === SectionKind::Homeroom ? 0 : 1,
                    ] ?:
                    strnatcasecmp($a->name, $b->name),
                )
                ->all(),
        );
    }

    /**
     * @param string|null $asOf YYYY-MM-DD; null is today, or for an archived section the day before it was archived
     */
    public function detail(Section $section, Person $reader, ?string $asOf): SectionDetail
    {
        $today = SchoolDay::today($section->school_id);
        $day = $asOf ?? $today;
        $powers = SectionPowers::of($reader, $section)->all();
        $open = $section->state === 'open';
        $roster = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.section_id', $section->id)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', $day))
            ->orderByRaw("p.state = 'reserve'")
            ->orderBy('p.family_name')
            ->orderBy('p.given_name')
            ->orderBy('e.id')
            ->get([
                'p.id',
                'p.called_name as given_name',
                'p.family_name',
                'p.grade',
                'p.state',
                'p.pictures',
                'e.begins_on',
                'e.ends_on',
                'e.source',
            ])
            ->unique('id');
        $signIns = $this->signIns($roster->pluck('id'));
        $guarded = DB::table('guardianships')
            ->whereIn('student_id', $roster->pluck('id'))
            ->whereIn('state', ['listed', 'invited', 'connected'])
            ->pluck('student_id')
            ->flip();
        $clashes = $this->clashes(collect([$section->id]), $day)->groupBy('person_id');
        $staff = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.section_id', $section->id)
            ->where('e.role', '!=', 'student')
            // A substitute who comes later stands there already, with the dates.
            ->where(fn(Builder $q) => $q->whereNull('e.ends_on')->orWhere('e.ends_on', '>', $day))
            ->orderBy('e.role')
            ->orderBy('p.family_name')
            ->get(['p.id', 'p.given_name', 'p.family_name', 'e.role', 'e.begins_on', 'e.ends_on']);
        $now = now()->format('Y-m-d H:i:s');
        $invitations = !in_array(Power::InviteStaff, $powers, true)
            ? collect()
            : DB::table('invitations')
                ->where('section_id', $section->id)
                ->orderByDesc('sent_at')
                ->orderBy('email')
                ->get();
        $pass = !in_array(Power::RoomPass, $powers, true)
            ? null
            : DB::table('room_passes')->where('section_id', $section->id)->where('state', 'live')->first();

        return new SectionDetail(
            $section->id,
            $section->school_id,
            $section->name,
            SectionKind::from($section->kind),
            GradeLevel::read((string) $section->grade)?->short(),
            (string) $section->period,
            $section->seats,
            SectionState::from($section->state),
            $section->archived_on,
            SchoolYear::query()->findOrFail($section->school_year_id)->name,
            $day,
            $day === $today,
            DB::table('join_codes')->where('section_id', $section->id)->where('state', 'open')->exists(),
            array_values(
                $roster
                    ->map(
                        fn(object $p): RosterLine => new RosterLine(
                            $p->id,
                            trim("$p->given_name $p->family_name"),
                            GradeLevel::read((string) $p->grade)?->short() ?? '',
                            (string) ($signIns[$p->id]->user_name ?? ''),
                            $p->begins_on,
                            $p->ends_on,
                            $p->source,
                            ($signIns[$p->id]->last ?? null) !== null,
                            (int) ($signIns[$p->id]->badges ?? 0) > 0,
                            isset($guarded[$p->id]),
                            $p->state === 'reserve',
                            $p->pictures !== null,
                            implode(', ', ($clashes[$p->id] ?? collect())->pluck('other')->all()),
                        ),
                    )
                    ->all(),
            ),
            array_values(
                $staff
                    ->map(
                        fn(object $p): StaffLine => new StaffLine(
                            $p->id,
                            trim("$p->given_name $p->family_name"),
                            StaffRole::from($p->role),
                            StaffRole::from($p->role)->label(),
                            $p->begins_on,
                            $p->ends_on,
                        ),
                    )
                    ->all(),
            ),
            array_values(
                $invitations
                    ->map(
                        fn(stdClass $i): InvitationLine => new InvitationLine(
                            $i->id,
                            $i->email,
                            StaffRole::from($i->role)->label(),
                            InvitationStanding::at(InvitationState::from($i->state), $i->expires_at, $now),
                            Instant::iso($i->sent_at),
                            Instant::iso($i->expires_at),
                            Instant::isoOrNull($i->answered_at),
                            $i->begins_on,
                            $i->ends_on,
                        ),
                    )
                    ->all(),
            ),
            $pass === null
                ? null
                : new RoomPassLine(
                    PassHours::from($pass->hours),
                    (int) $pass->pictures === 1,
                    Instant::iso($pass->made_at),
                    $pass->ends_at === null ? null : SchoolDay::local($section->school_id, $pass->ends_at),
                ),
            !$open || !in_array(Power::AnswerRequests, $powers, true)
                ? 0
                : DB::table('join_requests')->where('section_id', $section->id)->where('state', 'waiting')->count(),
            // An archived section is read, and printed by coordinators.
            array_map(
                fn(Power $p): string => $p->value,
                $open
                    ? $powers
                    : array_values(
                        array_filter(
                            $powers,
                            fn(Power $p): bool => in_array($p, [Power::SeeRoster, Power::PrintCards], true),
                        ),
                    ),
            ),
        );
    }

    /**
     * @return Collection<int, object{id: string, given_name: string, family_name: string}> students of today by name
     */
    public function students(Section $section): Collection
    {
        /** @var Collection<int, object{id: string, given_name: string, family_name: string}> $students */
        $students = DB::table('enrollments as e')
            ->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.section_id', $section->id)
            ->where('e.role', 'student')
            ->where('p.state', 'active')
            ->where(SchoolDay::inForce('e', SchoolDay::today($section->school_id)))
            ->orderBy('p.called_name')
            ->orderBy('p.family_name')
            ->get(['p.id', 'p.called_name as given_name', 'p.family_name']);

        return $students;
    }

    /**
     * Students who are in another open section in the same period of the same year. The database looks for all that may
     * be, whatever its collation takes for alike; {@see Periods} says which are.
     *
     * @param  Collection<int, mixed>  $sectionIds
     * @return Collection<int, object{
     *     section_id: string, person_id: string, other: string, period: string, at: string,
     * }>
     */
    private function clashes(Collection $sectionIds, string $day): Collection
    {
        /**
         * @var Collection<int, object{
         *     section_id: string, person_id: string, other: string, period: string, at: string,
         * }> $clashes
         */
        $clashes = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->whereIn('s.id', $sectionIds)
            ->whereNotNull('s.period')
            ->where('s.state', 'open')
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', $day))
            ->join(
                'enrollments as o',
                fn($j) => $j
                    ->on('o.person_id', '=', 'e.person_id')
                    ->on('o.section_id', '!=', 'e.section_id')
                    ->where('o.role', 'student'),
            )
            ->where(SchoolDay::inForce('o', $day))
            ->join(
                'sections as t',
                fn($j) => $j
                    ->on('t.id', '=', 'o.section_id')
                    ->on('t.period', '=', 's.period')
                    ->on('t.school_year_id', '=', 's.school_year_id')
                    ->where('t.state', 'open'),
            )
            ->orderBy('t.name')
            ->get(['e.section_id', 'e.person_id', 't.name as other', 's.period', 't.period as at']);

        return $clashes->filter(fn(object $c): bool => Periods::same($c->period, $c->at))->values();
    }

    /**
     * @param  Collection<int, mixed>  $sectionIds
     * @return Collection<array-key, \stdClass>
     */
    private function counts(Collection $sectionIds, string $today): Collection
    {
        return DB::table('enrollments as e')
            ->whereIn('e.section_id', $sectionIds)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', $today))
            ->leftJoinSub(
                'select person_id, max(last_signed_in_at) last from sign_ins group by person_id',
                'i',
                'i.person_id',
                '=',
                'e.person_id',
            )
            ->leftJoinSub(
                'select s.person_id, count(*) n from badges b join sign_ins s on s.id = b.sign_in_id where ' .
                    "b.state = 'live' group by s.person_id",
                'b',
                'b.person_id',
                '=',
                'e.person_id',
            )
            ->groupBy('e.section_id')
            ->selectRaw(
                'e.section_id, count(*) students, sum(i.last is not null) signed_in, sum(b.n is not null) with_card',
            )
            ->get()
            ->keyBy('section_id');
    }

    /**
     * @param  Collection<int, mixed>  $personIds
     * @return Collection<array-key, \stdClass>
     */
    private function signIns(Collection $personIds): Collection
    {
        return DB::table('sign_ins as i')
            ->whereIn('i.person_id', $personIds)
            ->leftJoin('badges as b', fn($j) => $j->on('b.sign_in_id', '=', 'i.id')->where('b.state', 'live'))
            ->groupBy('i.person_id')
            ->selectRaw('i.person_id, min(i.user_name) user_name, max(i.last_signed_in_at) last, count(b.id) badges')
            ->get()
            ->keyBy('person_id');
    }
}
