<?php

declare(strict_types=1);

namespace App\Sections\Http;

use App\Ledger\PlanView;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Sections\SectionDesk;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Sections\ManySections;
use Vantrel\Core\Sections\NewSection;
use Vantrel\Core\Sections\SectionNames;
use Vantrel\Core\Values\GradeLevel;

/** Making many sections at once. */
final class ManyController
{
    private const RULES = [
        'how' => 'required|in:list,pattern,year',
        'year' => 'nullable|ulid',
        'kind' => 'required|in:homeroom,class',
        'text' => 'nullable|string|max:60000',
        'pattern' => 'nullable|string|max:60',
        'subject' => 'nullable|string|max:60',
        'grades' => 'nullable|array|max:16',
        'grades.*' => 'string|max:4',
        'groups' => 'nullable|string|max:200',
        'period' => 'nullable|string|max:20',
        'from' => 'nullable|ulid',
    ];

    private const TAKES = [
        'how' => 'list|pattern|year',
        'kind' => 'homeroom|class',
        'year?' => 'string',
        'text?' => 'string',
        'pattern?' => 'string',
        'subject?' => 'string',
        'grades?' => 'list<string>',
        'groups?' => 'string',
        'period?' => 'string',
        'from?' => 'string',
    ];

    public function __construct(private readonly SectionDesk $desk, private readonly CoreKit $kit) {}

    #[Answers(PlanView::class, 'What making sections from a list, a pattern or another year would do')]
    #[Takes(self::TAKES)]
    public function plan(School $school, Request $request): PlanView
    {
        $seed = $this->kit->seed();

        return PlanView::of($this->make($school, $request, $seed), $seed, Action::Section);
    }

    #[Answers(PlanView::class, 'Make them, as looked at')]
    #[Takes([...self::TAKES, 'seed' => 'string', 'fingerprint' => 'string'])]
    public function store(School $school, Request $request): PlanView
    {
        $request->validate(['fingerprint' => 'required|string|size:64']);
        $seed = $this->kit->seedOf($request);
        $plan = $this->make($school, $request, $seed);
        $this->desk->mustBeAsSeen($plan, $request, 'the sections of this year');
        $this->desk->applyAt($plan, $school->id, $request, Action::Section);

        return PlanView::of($plan, $seed, Action::Section);
    }

    private function make(School $school, Request $request, string $seed): Plan
    {
        $request->validate(self::RULES);
        $year =
            SchoolYear::query()
                ->where('school_id', $school->id)
                ->where('state', '!=', 'closed')
                ->when(
                    $request->filled('year'),
                    fn($q) => $q->where('id', $request->string('year')->value()),
                    fn($q) => $q->where('state', 'current'),
                )
                ->first() ?? throw new NotFoundHttpException();
        $made = $this->kit->ids($seed)->instant();
        $teachers = [];
        $kind = $request->string('kind')->value();
        if ($request->string('how')->value() === 'list') {
            $wanted = ManySections::fromText($request->string('text')->value(), $kind);
        } elseif ($request->string('how')->value() === 'pattern') {
            $wanted = $this->series($school, $year, $request, $kind);
        } else {
            [$wanted, $teachers] = $this->fromYear($school, $request);
        }

        return ManySections::plan(
            $school->id,
            $year->id,
            $wanted,
            $this->desk->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->where('school_year_id', $year->id),
            ),
            $this->desk->snapshots->list(
                Records\Person::class,
                fn(Builder $q): Builder => $q
                    ->where('school_id', $school->id)
                    ->where('kind', 'staff')
                    ->where('state', 'active'),
            ),
            $teachers,
            $this->kit->codeBook($seed),
            $this->kit->ids($seed),
            max($year->begins_on, SchoolDay::at($school->id, $made)),
            $made,
        );
    }

    /** @return list<NewSection> */
    private function series(School $school, SchoolYear $year, Request $request, string $kind): array
    {
        $pattern = SectionNames::check(
            $request->filled('pattern') ? $request->string('pattern')->value() : $school->naming_pattern,
        );
        $grades = array_map(
            fn(mixed $g): GradeLevel => GradeLevel::read(is_string($g) ? $g : '') ??
                throw new Refusal('That is not a grade.', 'grades'),
            array_values($request->array('grades')),
        );
        $groups = array_values(
            array_filter(
                array_map(trim(...), explode(',', $request->string('groups')->value())),
                fn(string $g): bool => $g !== '',
            ),
        );
        $period = $request->string('period')->value();

        return array_map(
            fn(array $n): NewSection => new NewSection(
                mb_substr($n[0], 0, SectionNames::MAX),
                $kind,
                $n[1]?->code(),
                $period === '' ? null : $period,
            ),
            SectionNames::series(
                $pattern,
                trim($request->string('subject')->value()),
                $grades,
                $groups,
                $period,
                $year->name,
            ),
        );
    }

    /** @return array{list<NewSection>, array<string, list<Records\Enrollment>>} */
    private function fromYear(School $school, Request $request): array
    {
        $from =
            SchoolYear::query()
                ->where('school_id', $school->id)
                ->where('id', $request->string('from')->value())
                ->first() ?? throw new Refusal('Choose the year to take the sections from.', 'from');
        $wanted = $teachers = [];
        $sections = $this->desk->snapshots->list(
            Records\Section::class,
            fn(Builder $q): Builder => $q->where('school_year_id', $from->id)->orderBy('name'),
        );
        foreach ($sections as $section) {
            $wanted[] = new NewSection(
                $section->name(),
                $section->kind()->value,
                $section->grade(),
                $section->period(),
                $section->seats(),
                '',
                $section,
            );
        }
        foreach (
            $this->desk->snapshots->list(
                Records\Enrollment::class,
                fn(Builder $q): Builder => $q
                    ->where('role', '!=', 'student')
                    ->whereNull('ends_on')
                    ->whereIn('section_id', array_map(fn(Records\Section $s): string => $s->id, $sections))
                    ->whereIn('person_id', fn($p) => $p->select('id')->from('people')->where('state', 'active')),
            )
            as $enrollment
        ) {
            $teachers[$enrollment->sectionId()][] = $enrollment;
        }

        return [$wanted, $teachers];
    }
}
