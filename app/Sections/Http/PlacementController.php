<?php

declare(strict_types=1);

namespace App\Sections\Http;

use App\Ledger\PlanView;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\Http\Wishes\MoveWish;
use App\Sections\Http\Wishes\PlaceWish;
use App\Sections\Placements;
use App\Sections\SectionDesk;
use App\Sections\SectionReader;
use App\Sections\Views\SectionDetail;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Gate;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Staffing\Power;

/** Moving students between sections, also enrolling and taking them out: looked at first, then applied as looked at. */
final class PlacementController
{
    public function __construct(
        private readonly SectionDesk $desk,
        private readonly Placements $placements,
        private readonly SectionReader $reader,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(PlanView::class, 'What moving, also enrolling or taking out students of a section would do')]
    #[Takes(MoveWish::class)]
    public function plan(Section $section, Request $request): PlanView
    {
        $wish = Wishes::of(MoveWish::class, $request);
        $seed = $this->kit->seed();

        return PlanView::of($this->make($section, $wish, $seed), $seed, Action::Place);
    }

    #[Answers(SectionDetail::class, 'Do it, as looked at')]
    #[Takes(MoveWish::class, AsSeen::class)]
    public function store(Section $section, Request $request): SectionDetail
    {
        $wish = Wishes::of(MoveWish::class, $request);
        $seen = Wishes::of(AsSeen::class, $request);
        $this->holding($wish, [$section->id], function () use ($section, $request, $wish, $seen): void {
            $plan = $this->make($section, $wish, $this->kit->fresh($seen->seed));
            $seen->mustBe($plan, $section->name);
            $this->desk->apply($plan, $section, $request, Action::Place);
        });

        return $this->reader->detail($section, Person::signedIn($request), null);
    }

    #[Answers(PlanView::class, 'What placing students of the school in a section would do')]
    #[Takes(PlaceWish::class)]
    public function planPlace(School $school, Request $request): PlanView
    {
        $wish = Wishes::of(PlaceWish::class, $request);
        $seed = $this->kit->seed();

        return PlanView::of($this->makePlace($school, $wish, $seed)[0], $seed, Action::Place);
    }

    #[Answers(PlanView::class, 'Place them, as looked at')]
    #[Takes(PlaceWish::class, AsSeen::class)]
    public function place(School $school, Request $request): PlanView
    {
        $wish = Wishes::of(PlaceWish::class, $request);
        $seen = Wishes::of(AsSeen::class, $request);
        $seed = $this->kit->fresh($seen->seed);
        $plan = $this->holding($wish, [], function () use ($school, $request, $wish, $seen, $seed): Plan {
            [$plan, $section] = $this->makePlace($school, $wish, $seed);
            $seen->mustBe($plan, $section->name);
            $this->desk->apply($plan, $section, $request, Action::Place);

            return $plan;
        });

        return PlanView::of($plan, $seed, Action::Place);
    }

    /**
     * @template T
     *
     * @param  list<string>  $sections besides the one they come into
     * @param  Closure(): T  $work
     * @return T
     */
    private function holding(MoveWish|PlaceWish $wish, array $sections, Closure $work): mixed
    {
        return $this->desk->ledger->holding(
            ['people' => $wish->people, 'sections' => [...$sections, (string) $wish->to]],
            $work,
        );
    }

    private function make(Section $section, MoveWish $wish, string $seed): Plan
    {
        $kind = $wish->kind;
        $to = null;
        if ($kind !== MoveKind::Remove && $wish->to !== null) {
            $target =
                Section::query()->where('id', $wish->to)->where('school_id', $section->school_id)->first() ??
                throw new NotFoundHttpException();
            // The policy of the route has looked at the section they leave; the other one is looked at here.
            Gate::authorize(Power::PlaceStudents->value, $target);
            $to = $this->desk->row($target);
        }
        $people = $this->desk->snapshots->list(
            Records\Person::class,
            fn(Builder $q): Builder => $q
                ->whereIn('id', $wish->people)
                // Who is in the section or is going to be; whoever was in it once is the school's to place.
                ->whereIn(
                    'id',
                    fn($s) => $s
                        ->select('person_id')
                        ->from('enrollments')
                        ->where('section_id', $section->id)
                        ->where('role', 'student')
                        ->where(
                            fn($o) => $o
                                ->whereNull('ends_on')
                                ->orWhere('ends_on', '>', SchoolDay::today($section->school_id)),
                        ),
                ),
        );

        return $this->placements->plan(
            $this->placements->move(
                $kind,
                $people,
                $kind === MoveKind::Also ? null : $this->desk->row($section),
                $to,
                $wish->day ?? $this->day($section->school_id, $seed),
            ),
            $seed,
        );
    }

    /** @return array{Plan, Section} */
    private function makePlace(School $school, PlaceWish $wish, string $seed): array
    {
        $section =
            Section::query()->where('id', $wish->to)->where('school_id', $school->id)->first() ??
            throw new NotFoundHttpException();
        $people = $this->desk->snapshots->list(
            Records\Person::class,
            fn(Builder $q): Builder => $q->whereIn('id', $wish->people)->where('school_id', $school->id),
        );

        return [
            $this->placements->plan(
                $this->placements->move(
                    $wish->kind,
                    $people,
                    null,
                    $this->desk->row($section),
                    $wish->day ?? $this->day($school->id, $seed),
                ),
                $seed,
            ),
            $section,
        ];
    }

    private function day(string $schoolId, string $seed): string
    {
        return SchoolDay::at($schoolId, $this->kit->ids($seed)->instant());
    }
}
