<?php

declare(strict_types=1);

namespace App\Sections\Http;

use App\Ledger\PlanView;
use App\Models\School;
use App\Models\SchoolYear;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\Http\Wishes\ManyWish;
use App\Sections\SectionDesk;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Sections\ManySections;
use Vantrel\Core\Sections\NewSection;
use Vantrel\Core\Sections\NewSections;
use Vantrel\Core\Sections\SectionNames;
use Vantrel\Core\Values\GradeLevel;

/** Making many sections at once. */
final class ManyController
{
    public function __construct(private readonly SectionDesk $desk, private readonly PlannerKit $kit) {}

    #[Answers(PlanView::class, 'What making sections from a list, a pattern or another year would do')]
    #[Takes(ManyWish::class)]
    public function plan(School $school, Request $request): PlanView
    {
        $wish = Wishes::of(ManyWish::class, $request);
        $seed = $this->kit->seed();

        return PlanView::of($this->make($school, $wish, $seed), $seed, Action::Section);
    }

    #[Answers(PlanView::class, 'Make them, as looked at')]
    #[Takes(ManyWish::class, AsSeen::class)]
    public function store(School $school, Request $request): PlanView
    {
        $wish = Wishes::of(ManyWish::class, $request);
        $seen = Wishes::of(AsSeen::class, $request);
        $seed = $this->kit->fresh($seen->seed);
        $plan = $this->make($school, $wish, $seed);
        $seen->mustBe($plan, 'the sections of this year');
        $this->desk->applyAt($plan, $school->id, $request, Action::Section);

        return PlanView::of($plan, $seed, Action::Section);
    }

    private function make(School $school, ManyWish $wish, string $seed): Plan
    {
        $year = $this->desk->yearToWorkIn($school, $wish->year);
        $made = $this->kit->ids($seed)->instant();
        $teachers = [];
        $kind = $wish->kind->value;
        if ($wish->how === 'list') {
            $wanted = ManySections::fromText($wish->text, $kind);
        } elseif ($wish->how === 'pattern') {
            $wanted = $this->series($school, $year, $wish, $kind);
        } else {
            [$wanted, $teachers] = $this->fromYear($school, $wish);
        }

        return ManySections::plan(
            new NewSections($school->id, $year->id, $wanted, max($year->begins_on, SchoolDay::at($school->id, $made))),
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
            $made,
        );
    }

    /** @return list<NewSection> */
    private function series(School $school, SchoolYear $year, ManyWish $wish, string $kind): array
    {
        $pattern = SectionNames::check($wish->pattern ?? $school->naming_pattern);
        $grades = array_map(
            fn(string $g): GradeLevel => GradeLevel::read($g) ?? throw new Refusal('That is not a grade.', 'grades'),
            $wish->grades,
        );
        $groups = array_values(
            array_filter(array_map(trim(...), explode(',', $wish->groups)), fn(string $g): bool => $g !== ''),
        );
        $period = $wish->period;

        return array_map(
            fn(array $n): NewSection => new NewSection(
                mb_substr($n[0], 0, SectionNames::MAX),
                $kind,
                $n[1]?->code(),
                $period === '' ? null : $period,
            ),
            SectionNames::series($pattern, trim($wish->subject), $grades, $groups, $period, $year->name),
        );
    }

    /** @return array{list<NewSection>, array<string, list<Records\Enrollment>>} */
    private function fromYear(School $school, ManyWish $wish): array
    {
        $from =
            SchoolYear::query()->where('school_id', $school->id)->where('id', $wish->from)->first() ??
            throw new Refusal('Choose the year to take the sections from.', 'from');
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
