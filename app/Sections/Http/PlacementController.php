<?php

declare(strict_types=1);

namespace App\Sections\Http;

use App\Ledger\PlanView;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Sections\SectionDesk;
use App\Sections\SectionReader;
use App\Sections\Views\SectionDetail;
use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Gate;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Sections\Moves;
use Vantrel\Core\Staffing\Power;

/** Moving students between sections, also enrolling and taking them out: looked at first, then applied as looked at. */
final class PlacementController
{
    private const RULES = [
        'kind' => 'required|in:move,also,remove',
        'people' => 'required|array|min:1|max:2000',
        'people.*' => 'ulid',
        'to' => 'nullable|ulid',
        'day' => 'nullable|date_format:Y-m-d',
    ];

    public function __construct(
        private readonly SectionDesk $desk,
        private readonly SectionReader $reader,
        private readonly CoreKit $kit,
    ) {}

    #[Answers(PlanView::class, 'What moving, also enrolling or taking out students of a section would do')]
    #[Takes(['kind' => 'move|also|remove', 'people' => 'list<string>', 'to?' => 'string', 'day?' => 'string'])]
    public function plan(Section $section, Request $request): PlanView
    {
        $seed = $this->kit->seed();

        return PlanView::of($this->make($section, $request, $seed), $seed, Action::Place);
    }

    #[Answers(SectionDetail::class, 'Do it, as looked at')]
    #[
        Takes([
            'kind' => 'move|also|remove',
            'people' => 'list<string>',
            'to?' => 'string',
            'day?' => 'string',
            'seed' => 'string',
            'fingerprint' => 'string',
        ]),
    ]
    public function store(Section $section, Request $request): SectionDetail
    {
        $request->validate(['fingerprint' => 'required|string|size:64']);
        $this->holding($request, [$section->id], function () use ($section, $request): void {
            $plan = $this->make($section, $request, $this->kit->seedOf($request));
            $this->desk->mustBeAsSeen($plan, $request, $section->name);
            $this->desk->apply($plan, $section, $request, Action::Place);
        });

        return $this->reader->detail($section, $this->desk->actor($request), null);
    }

    #[Answers(PlanView::class, 'What placing students of the school in a section would do')]
    #[Takes(['people' => 'list<string>', 'to' => 'string', 'day?' => 'string'])]
    public function planPlace(School $school, Request $request): PlanView
    {
        $seed = $this->kit->seed();

        return PlanView::of($this->makePlace($school, $request, $seed)[0], $seed, Action::Place);
    }

    #[Answers(PlanView::class, 'Place them, as looked at')]
    #[
        Takes([
            'people' => 'list<string>',
            'to' => 'string',
            'day?' => 'string',
            'seed' => 'string',
            'fingerprint' => 'string',
        ]),
    ]
    public function place(School $school, Request $request): PlanView
    {
        $request->validate(['fingerprint' => 'required|string|size:64']);
        $seed = $this->kit->seedOf($request);
        $plan = $this->holding($request, [], function () use ($school, $request, $seed): Plan {
            [$plan, $section] = $this->makePlace($school, $request, $seed);
            $this->desk->mustBeAsSeen($plan, $request, $section->name);
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
    private function holding(Request $request, array $sections, Closure $work): mixed
    {
        $request->validate(array_diff_key(self::RULES, ['kind' => 1]));
        $people = array_values(array_filter($request->array('people'), is_string(...)));

        return $this->desk->ledger->holding(
            ['people' => $people, 'sections' => [...$sections, $request->string('to')->value()]],
            $work,
        );
    }

    private function make(Section $section, Request $request, string $seed): Plan
    {
        $request->validate(self::RULES);
        $kind = MoveKind::from($request->string('kind')->value());
        $to = null;
        if ($kind !== MoveKind::Remove && $request->filled('to')) {
            $target =
                Section::query()
                    ->where('id', $request->string('to')->value())
                    ->where('school_id', $section->school_id)
                    ->first() ?? throw new NotFoundHttpException();
            // The policy of the route has looked at the section they leave; the other one is looked at here.
            Gate::authorize(Power::PlaceStudents->value, $target);
            $to = $this->desk->row($target);
        }
        /** @var list<string> $ids */
        $ids = $request->array('people');
        $people = $this->desk->snapshots->list(
            Records\Person::class,
            fn(Builder $q): Builder => $q
                ->whereIn('id', $ids)
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

        return $this->planOf(
            $kind,
            $people,
            $kind === MoveKind::Also ? null : $this->desk->row($section),
            $to,
            $section->school_id,
            $request,
            $seed,
        );
    }

    /** @return array{Plan, Section} */
    private function makePlace(School $school, Request $request, string $seed): array
    {
        $request->validate([...array_diff_key(self::RULES, ['kind' => 1]), 'to' => 'required|ulid']);
        $section =
            Section::query()
                ->where('id', $request->string('to')->value())
                ->where('school_id', $school->id)
                ->first() ?? throw new NotFoundHttpException();
        /** @var list<string> $ids */
        $ids = $request->array('people');
        $people = $this->desk->snapshots->list(
            Records\Person::class,
            fn(Builder $q): Builder => $q->whereIn('id', $ids)->where('school_id', $school->id),
        );

        return [
            $this->planOf(MoveKind::Also, $people, null, $this->desk->row($section), $school->id, $request, $seed),
            $section,
        ];
    }

    /** @param  list<Records\Person>  $people */
    private function planOf(
        MoveKind $kind,
        array $people,
        ?Records\Section $from,
        ?Records\Section $to,
        string $schoolId,
        Request $request,
        string $seed,
    ): Plan {
        $day = $request->filled('day')
            ? $request->string('day')->value()
            : SchoolDay::at($schoolId, $this->kit->ids($seed)->instant());
        usort(
            $people,
            fn(Records\Person $a, Records\Person $b): int => [$a->familyName(), $a->givenName(), $a->id] <=> [
                $b->familyName(),
                $b->givenName(),
                $b->id,
            ],
        );
        $enrollments = $sections = [];
        $in = $to === null ? [] : [$to->id => true];
        foreach (
            $this->desk->snapshots->list(
                Records\Enrollment::class,
                fn(Builder $q): Builder => $q
                    ->whereIn('person_id', array_map(fn(Records\Person $p): string => $p->id, $people))
                    ->where('role', 'student'),
            )
            as $enrollment
        ) {
            $enrollments[$enrollment->personId()][] = $enrollment;
            $in[$enrollment->sectionId()] = true;
        }
        foreach (
            $this->desk->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->whereIn('id', array_map(strval(...), array_keys($in))),
            )
            as $section
        ) {
            $sections[$section->id] = $section;
        }
        $seated =
            $to === null
                ? 0
                : DB::table('enrollments as e')
                    ->where('e.section_id', $to->id)
                    ->where('e.role', 'student')
                    ->where(SchoolDay::inForce('e', $day))
                    ->count();

        return Moves::plan($kind, $people, $from, $to, $enrollments, $sections, $seated, $day, $this->kit->ids($seed));
    }
}
