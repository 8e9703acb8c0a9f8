<?php

declare(strict_types=1);

namespace App\Sections;

use App\Access\DoorMatch;
use App\Access\Policies;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\Instant;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Placement\Newcomers;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Values\CalendarDate;

/** Newcomers who wait to be let into a section. */
final class RequestController
{
    public function __construct(private readonly SectionDesk $desk, private readonly DoorMatch $match, private readonly CoreKit $kit)
    {
    }

    #[Answers(RequestPage::class, 'Who waits to be let in, with whom of the Roll they may be')]
    public function index(Section $section, Request $request): RequestPage
    {
        $waiting = $this->desk->snapshots->list(Entity::JoinRequest, fn (Builder $q): Builder => $q->where('section_id', $section->id)->whereIn('state', ['waiting', 'mail']));
        $full = Policies::coordinates($this->desk->actor($request), $section->school_id);

        return new RequestPage(array_map(fn (Row $r): RequestLine => $this->line($section, $r, $full), $waiting));
    }

    #[Answers(RequestPage::class, 'Let a newcomer in with an account of their own, or as somebody of the Roll')]
    #[Takes(['as?' => 'string'])]
    public function approve(Section $section, string $asking, Request $request): RequestPage
    {
        $request->validate(['as' => 'nullable|string|size:26']);
        $row = $this->row($section, $asking);
        $actor = $this->desk->actor($request);
        $seed = $this->kit->seed();
        $today = SchoolDay::today($section->school_id);
        if ($request->filled('as')) {
            // Only somebody the matcher has offered: a teacher cannot reach any student of the school by id.
            $offered = array_map(fn (Candidate $c): string => $c->subject->id, $this->candidates($section, $row));
            $as = $request->string('as')->value();
            $person = in_array($as, $offered, true) ? $this->desk->find(Entity::Person, $as) : throw new NotFoundHttpException;
            $plan = Newcomers::approveAs($this->desk->row($section), $row, $person, $this->desk->enrollments($as), $this->kit->userNames(), $actor->id, $this->kit->ids($seed), $today, $this->kit->now());
        } else {
            $plan = Newcomers::approve($this->desk->row($section), $row, $this->kit->userNames(), $actor->id, $this->kit->ids($seed), $today, $this->kit->now());
        }
        $this->desk->apply($plan, $section, $request, 'let-in');

        return $this->index($section, $request);
    }

    #[Answers(RequestPage::class, 'Turn a newcomer away')]
    public function refuse(Section $section, string $asking, Request $request): RequestPage
    {
        $this->desk->apply(Newcomers::refuse($this->desk->row($section), $this->row($section, $asking), $this->desk->actor($request)->id, $this->kit->now()), $section, $request, 'turn-away');

        return $this->index($section, $request);
    }

    private function line(Section $section, Row $row, bool $full): RequestLine
    {
        $candidates = array_map(function (Candidate $c) use ($section, $full): RequestMatch {
            $in = DB::table('enrollments as e')->join('sections as s', 's.id', '=', 'e.section_id')->where('e.person_id', $c->subject->id)->where('s.state', 'open')->where(SchoolDay::inForce('e', SchoolDay::today($section->school_id)))->orderBy('s.kind')->orderBy('s.name')->pluck('s.name')->all();
            // A teacher sees how fields agree, not what stands in the record of a student who is not theirs.
            $evidence = $full ? $c->evidence : array_map(fn (Evidence $e): Evidence => new Evidence($e->field, '', '', $e->level, $e->weight), $c->evidence);

            return new RequestMatch($c->subject->id, $full ? trim($c->subject->given.' '.$c->subject->family) : (new PersonName($c->subject->given, $c->subject->family))->display(), $c->probability, $full ? implode(', ', $in) : '', in_array($section->name, $in, true), $evidence);
        }, $this->candidates($section, $row));
        $born = $row->maybe('birth_date');

        return new RequestLine($row->id, trim($row->text('given_name').' '.$row->text('family_name')), $row->text('state'), $row->text('cause'), $born === null ? null : CalendarDate::age($born, SchoolDay::today($section->school_id)), Instant::iso($row->text('made_at')), $candidates);
    }

    /** @return list<Candidate> */
    private function candidates(Section $section, Row $row): array
    {
        return $this->match->of($section->school_id, new PersonName($row->text('given_name'), $row->text('family_name')), $row->maybe('birth_date'), $row->maybe('number'), $section->grade);
    }

    private function row(Section $section, string $id): Row
    {
        $row = $this->desk->find(Entity::JoinRequest, $id);

        return $row->text('section_id') === $section->id ? $row : throw new NotFoundHttpException;
    }
}
