<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Door\DoorMatch;
use App\Door\Http\Wishes\LetInWish;
use App\Door\Views\RequestLine;
use App\Door\Views\RequestMatch;
use App\Door\Views\RequestPage;
use App\Models\Coordinators;
use App\Models\Person;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use App\Sections\SectionDesk;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Accounts\StudentAccount;
use Vantrel\Core\Door\JoinRequests;
use Vantrel\Core\Door\Newcomers;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Values\CalendarDate;

/** Newcomers who wait to be let into a section. */
final class RequestController
{
    public function __construct(
        private readonly SectionDesk $desk,
        private readonly DoorMatch $match,
        private readonly PlannerKit $kit,
        private readonly TryCounter $tries,
    ) {}

    #[Answers(RequestPage::class, 'Who waits to be let in, with whom of the Roll they may be')]
    public function index(Section $section, Request $request): RequestPage
    {
        return $this->page($section, $request, '');
    }

    #[Answers(RequestPage::class, 'Let a newcomer in with an account of their own, or as somebody of the Roll')]
    #[Takes(LetInWish::class)]
    public function approve(Section $section, string $asking, Request $request): RequestPage
    {
        $wish = Wishes::of(LetInWish::class, $request);
        $row = $this->row($section, $asking);
        $plan =
            $wish->as !== null
                ? $this->as($section, $row, $wish->as, $request)
                : JoinRequests::approve(
                    $this->desk->row($section),
                    $row,
                    $this->kit->userNames(),
                    Person::signedIn($request)->id,
                    null,
                    $this->kit->occasion($section->school_id),
                )->plan;
        $this->desk->apply($plan, $section, $request, Action::LetIn);

        return $this->page($section, $request, $plan->sentence);
    }

    #[Answers(RequestPage::class, 'Turn a newcomer away')]
    public function refuse(Section $section, string $asking, Request $request): RequestPage
    {
        $this->desk->apply(
            JoinRequests::refuse(
                $this->desk->row($section),
                $this->row($section, $asking),
                Person::signedIn($request)->id,
                $this->kit->now(),
            ),
            $section,
            $request,
            Action::TurnAway,
        );

        return $this->page($section, $request, '');
    }

    #[Answers(RequestPage::class, 'Turn all who wait away at once')]
    public function refuseAll(Section $section, Request $request): RequestPage
    {
        $plan = JoinRequests::refuseAll(
            $this->desk->row($section),
            $this->waiting($section),
            Person::signedIn($request)->id,
            $this->kit->now(),
        );
        $this->desk->apply($plan, $section, $request, Action::TurnAway);

        return $this->page($section, $request, $plan->sentence);
    }

    /**
     * The plan that takes a newcomer for somebody the matcher has offered: a teacher cannot reach any student of the
     * school by id.
     */
    private function as(Section $section, Records\JoinRequest $row, string $as, Request $request): Plan
    {
        $actor = Person::signedIn($request);
        $offered = array_map(
            fn(Candidate $c): string => $c->subject->id,
            $this->candidates($section, $row, Coordinators::has($actor, $section->school_id)),
        );
        $person = in_array($as, $offered, true)
            ? $this->desk->find(Records\Person::class, $as)
            : throw new NotFoundHttpException();
        $school = $this->desk->find(Records\School::class, $section->school_id);
        $signIns = $this->desk->snapshots->list(
            Records\SignIn::class,
            fn(Builder $q): Builder => $q->where('person_id', $as),
        );
        return JoinRequests::approveAs(
            $this->desk->row($section),
            $row,
            new StudentAccount($person, $signIns, SignInPolicy::read($school->signInPolicy())->way($person->grade())),
            $this->proven($row, $person, $school),
            $this->desk->enrollments($as),
            $actor->id,
            $this->kit->occasion($section->school_id),
        );
    }

    /** The proof is looked at by the server, and counts as a try like one at the door. */
    private function proven(Records\JoinRequest $row, Records\Person $person, Records\School $school): bool
    {
        $limit = [Limit::ProofStudent, $person->id];
        if (!$this->tries->takes($limit)) {
            return false;
        }
        $proven = JoinRequests::proves($row, $person, SchoolRules::of($school)->check);
        if ($proven) {
            $this->tries->giveBack($limit);
        }

        return $proven;
    }

    private function page(Section $section, Request $request, string $said): RequestPage
    {
        $full = Coordinators::has(Person::signedIn($request), $section->school_id);

        return new RequestPage(
            array_map(
                fn(Records\JoinRequest $r): RequestLine => $this->line($section, $r, $full),
                $this->waiting($section),
            ),
            $said,
        );
    }

    /** @return list<Records\JoinRequest> */
    private function waiting(Section $section): array
    {
        return $this->desk->snapshots->list(
            Records\JoinRequest::class,
            fn(Builder $q): Builder => $q->where('section_id', $section->id)->whereIn('state', ['waiting', 'mail']),
        );
    }

    private function line(Section $section, Records\JoinRequest $row, bool $full): RequestLine
    {
        $candidates = array_map(function (Candidate $c) use ($section, $full): RequestMatch {
            $in = DB::table('enrollments as e')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->where('e.person_id', $c->subject->id)
                ->where('s.state', 'open')
                ->where(SchoolDay::inForce('e', SchoolDay::today($section->school_id)))
                ->orderBy('s.kind')
                ->orderBy('s.name')
                ->pluck('s.name')
                ->all();
            // A teacher sees how the names agree, not what stands in the record of a student who is not theirs.
            $named = array_filter(
                $c->evidence,
                fn(Evidence $e): bool => str_contains($e->field, 'name') || str_contains($e->field, 'initial'),
            );
            $evidence = $full
                ? $c->evidence
                : array_values(
                    array_map(
                        fn(Evidence $e): Evidence => new Evidence($e->field, '', '', $e->level, $e->weight),
                        $named,
                    ),
                );

            return new RequestMatch(
                $c->subject->id,
                $full
                    ? trim($c->subject->given . ' ' . $c->subject->family)
                    : (new PersonName($c->subject->given, $c->subject->family))->display(),
                $c->probability,
                $full ? implode(', ', $in) : '',
                in_array($section->name, $in, true),
                $evidence,
            );
        }, $this->candidates($section, $row, $full));
        $born = $row->birthDate();

        return new RequestLine(
            $row->id,
            trim($row->givenName() . ' ' . $row->familyName()),
            $row->state(),
            $row->cause(),
            $born === null ? null : CalendarDate::age($born, SchoolDay::today($section->school_id)),
            Instant::iso($row->madeAt()),
            $candidates,
        );
    }

    /**
     * Whom a newcomer may be. A teacher is shown who has such a name, no more: how near a birth date or number comes to
     * what is on record is for coordinators, or anybody could find out a pupil's by asking at their own door.
     *
     * @return list<Candidate>
     */
    private function candidates(Section $section, Records\JoinRequest $row, bool $full): array
    {
        return $this->match->of(
            $section->school_id,
            new PersonName($row->givenName(), $row->familyName()),
            $full ? $row->birthDate() : null,
            $full ? $row->number() : null,
            $section->grade,
        );
    }

    private function row(Section $section, string $id): Records\JoinRequest
    {
        $row = $this->desk->find(Records\JoinRequest::class, $id);

        return $row->sectionId() === $section->id ? $row : throw new NotFoundHttpException();
    }
}
