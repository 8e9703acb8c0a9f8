<?php

declare(strict_types=1);

namespace App\Sections;

use App\Access\Policies;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Models\Section;
use App\Platform\Instant;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use Vantrel\Core\Placement\StaffRole;
use Vantrel\Core\Values\GradeLevel;

/** Reads sections for the screens, in a fixed number of queries whatever their size. */
final class SectionReader
{
    /** @return list<SectionLine> all of the school's year for its coordinators, the own ones for other staff */
    public function list(School $school, SchoolYear $year, Person $reader): array
    {
        $own = Policies::coordinates($reader, $school->id) ? null
            : DB::table('enrollments')->where('person_id', $reader->id)->where('role', '!=', 'student')->whereNull('ends_on')->pluck('section_id')->all();
        $sections = DB::table('sections as s')->where('s.school_year_id', $year->id)->where('s.school_id', $school->id)
            ->when($own !== null, fn ($q) => $q->whereIn('s.id', $own ?? []))
            ->leftJoin('join_codes as c', fn ($j) => $j->on('c.section_id', '=', 's.id')->where('c.state', 'open'))
            ->get(['s.id', 's.name', 's.kind', 's.grade', 's.state', 'c.id as code_id']);
        $counts = $this->counts($sections->pluck('id'));
        $leads = DB::table('enrollments as e')->join('people as p', 'p.id', '=', 'e.person_id')->whereIn('e.section_id', $sections->pluck('id'))
            ->where('e.role', 'lead')->whereNull('e.ends_on')->selectRaw("e.section_id, TRIM(CONCAT(p.given_name, ' ', p.family_name)) n")->pluck('n', 'section_id');

        return array_values($sections->map(fn (object $s): SectionLine => new SectionLine(
            $s->id, $s->name, $s->kind, GradeLevel::read((string) $s->grade)?->short(), $s->state, (string) ($leads[$s->id] ?? ''),
            (int) ($counts[$s->id]->students ?? 0), (int) ($counts[$s->id]->signed_in ?? 0), (int) ($counts[$s->id]->with_card ?? 0), $s->code_id !== null, $year->name,
        ))->sort(fn (SectionLine $a, SectionLine $b): int => [$a->kind === 'homeroom' ? 0 : 1] <=> [$b->kind === 'homeroom' ? 0 : 1] ?: strnatcasecmp($a->name, $b->name))->all());
    }

    public function detail(Section $section, Person $reader): SectionDetail
    {
        $roster = DB::table('enrollments as e')->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.section_id', $section->id)->where('e.role', 'student')->whereNull('e.ends_on')
            ->orderBy('p.family_name')->orderBy('p.given_name')
            ->get(['p.id', 'p.given_name', 'p.family_name', 'p.grade', 'e.begins_on', 'e.source']);
        $signIns = $this->signIns($roster->pluck('id'));
        $guarded = DB::table('guardianships')->whereIn('student_id', $roster->pluck('id'))->whereIn('state', ['listed', 'invited', 'connected'])->pluck('student_id')->flip();
        $staff = DB::table('enrollments as e')->join('people as p', 'p.id', '=', 'e.person_id')
            ->where('e.section_id', $section->id)->where('e.role', '!=', 'student')->whereNull('e.ends_on')->orderBy('e.role')->get(['p.id', 'p.given_name', 'p.family_name', 'e.role']);
        $now = now()->format('Y-m-d H:i:s');
        $teaches = Gate::forUser($reader)->allows('teach-section', $section);
        $invitations = ! $teaches ? collect() : DB::table('invitations')->where('section_id', $section->id)->orderByDesc('sent_at')->get();

        return new SectionDetail(
            $section->id, $section->school_id, $section->name, $section->kind, GradeLevel::read((string) $section->grade)?->short(), $section->state, $section->archived_on,
            SchoolYear::query()->findOrFail($section->school_year_id)->name,
            DB::table('join_codes')->where('section_id', $section->id)->where('state', 'open')->exists(),
            array_values($roster->map(fn (object $p): RosterLine => new RosterLine(
                $p->id, trim("$p->given_name $p->family_name"), GradeLevel::read((string) $p->grade)?->short() ?? '', (string) ($signIns[$p->id]->user_name ?? ''),
                $p->begins_on, $p->source, ($signIns[$p->id]->last ?? null) !== null, (int) ($signIns[$p->id]->badges ?? 0) > 0, isset($guarded[$p->id]),
            ))->all()),
            array_values($staff->map(fn (object $p): StaffLine => new StaffLine($p->id, trim("$p->given_name $p->family_name"), StaffRole::from($p->role)->label()))->all()),
            array_values($invitations->map(fn (object $i): InvitationLine => new InvitationLine(
                $i->id, $i->email, StaffRole::from($i->role)->label(), $i->state === 'invited' && $i->expires_at <= $now ? 'expired' : $i->state,
                Instant::iso($i->sent_at), Instant::iso($i->expires_at), Instant::isoOrNull($i->answered_at),
            ))->all()),
            $section->state === 'open' && $teaches,
            $section->state === 'open' && Gate::forUser($reader)->allows('archive-section', $section),
        );
    }

    /**
     * @param  Collection<int, mixed>  $sectionIds
     * @return Collection<string, object>
     */
    private function counts(Collection $sectionIds): Collection
    {
        return DB::table('enrollments as e')->whereIn('e.section_id', $sectionIds)->where('e.role', 'student')->whereNull('e.ends_on')
            ->leftJoinSub('select person_id, max(last_signed_in_at) last from sign_ins group by person_id', 'i', 'i.person_id', '=', 'e.person_id')
            ->leftJoinSub("select s.person_id, count(*) n from badges b join sign_ins s on s.id = b.sign_in_id where b.state = 'live' group by s.person_id", 'b', 'b.person_id', '=', 'e.person_id')
            ->groupBy('e.section_id')->selectRaw('e.section_id, count(*) students, sum(i.last is not null) signed_in, sum(b.n is not null) with_card')->get()->keyBy('section_id');
    }

    /**
     * @param  Collection<int, mixed>  $personIds
     * @return Collection<string, object>
     */
    private function signIns(Collection $personIds): Collection
    {
        return DB::table('sign_ins as i')->whereIn('i.person_id', $personIds)
            ->leftJoin('badges as b', fn ($j) => $j->on('b.sign_in_id', '=', 'i.id')->where('b.state', 'live'))
            ->groupBy('i.person_id')->selectRaw('i.person_id, min(i.user_name) user_name, max(i.last_signed_in_at) last, count(b.id) badges')->get()->keyBy('person_id');
    }
}
