<?php

declare(strict_types=1);

namespace App\Sections\Http;

use App\Ledger\Ledger;
use App\Ledger\PlanView;
use App\Models\LedgerEntry;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\Http\Wishes\DayWish;
use App\Sections\Http\Wishes\LookWish;
use App\Sections\Http\Wishes\SectionWish;
use App\Sections\Http\Wishes\YearWish;
use App\Sections\SectionDesk;
use App\Sections\SectionReader;
use App\Sections\StudentLook;
use App\Sections\Views\SectionDetail;
use App\Sections\Views\SectionPage;
use App\Sections\Views\StudentView;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Sections\Sections;

/** Sections and their rosters. */
final class SectionController
{
    /** Minutes in which the same person looking as the same student is one look. */
    private const ONE_LOOK = 10;

    public function __construct(
        private readonly SectionReader $reader,
        private readonly SectionDesk $desk,
        private readonly Ledger $ledger,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(SectionPage::class, 'Sections of a school year; the current one unless another is named')]
    #[Takes(YearWish::class)]
    public function index(School $school, Request $request): SectionPage
    {
        $wish = Wishes::of(YearWish::class, $request);
        $year =
            SchoolYear::query()
                ->where('school_id', $school->id)
                ->when(
                    $wish->year !== null,
                    fn($q) => $q->where('id', $wish->year),
                    fn($q) => $q->where('state', 'current'),
                )
                ->first() ?? throw new NotFoundHttpException();

        return new SectionPage($this->reader->list($school, $year, Person::signedIn($request)));
    }

    #[Answers(SectionDetail::class, 'Make a section')]
    #[Takes(SectionWish::class)]
    public function store(School $school, Request $request): SectionDetail
    {
        $wish = Wishes::of(SectionWish::class, $request);
        $year = SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->firstOrFail();
        $seed = $this->kit->seed();
        $plan = Sections::make(
            $school->id,
            $year->id,
            $wish->typed(),
            $this->desk->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->where('school_year_id', $year->id),
            ),
            $this->kit->codeBook($seed),
            $this->kit->occasion($school->id, $seed),
        );
        $this->desk->applyAt($plan, $school->id, $request, Action::Section);

        return $this->reader->detail(
            Section::query()->findOrFail($this->kit->ids($seed)->for('section')),
            Person::signedIn($request),
            null,
        );
    }

    #[Answers(SectionDetail::class, 'Change what a section is called and holds')]
    #[Takes(SectionWish::class)]
    public function update(Section $section, Request $request): SectionDetail
    {
        $wish = Wishes::of(SectionWish::class, $request);
        $plan = Sections::edit(
            $this->desk->row($section),
            $wish->typed(),
            $this->desk->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->where('school_year_id', $section->school_year_id),
            ),
        );
        if (!$plan->isEmpty()) {
            $this->desk->apply($plan, $section, $request, Action::Section);
        }

        return $this->reader->detail(Section::query()->findOrFail($section->id), Person::signedIn($request), null);
    }

    #[Answers(SectionDetail::class, 'One section with its roster, staff and invitations, today or as of another day')]
    #[Takes(DayWish::class)]
    public function show(Section $section, Request $request): SectionDetail
    {
        $wish = Wishes::of(DayWish::class, $request);

        return $this->reader->detail($section, Person::signedIn($request), $wish->asOf);
    }

    #[Answers(StudentView::class, 'The section as one of its students sees it: read-only, and recorded')]
    #[Takes(LookWish::class)]
    public function asStudent(Section $section, Request $request): StudentView
    {
        $wish = Wishes::of(LookWish::class, $request);
        $students = $this->reader->students($section);
        $student =
            $students->first(fn(object $s): bool => $wish->person === null || $s->id === $wish->person) ??
            throw new Refusal('There is no such student in this section now.');
        $person = Person::query()->findOrFail($student->id);
        $title = "{$section->name} as {$person->fullName()} sees it";
        // A page that is loaded again is the same look.
        $looked = LedgerEntry::query()
            ->where('school_id', $section->school_id)
            ->where('action', 'seen')
            ->where('actor_id', Person::signedIn($request)->id)
            ->where('title', $title)
            ->where('made_at', '>=', now()->subMinutes(self::ONE_LOOK))
            ->exists();
        if (!$looked) {
            $this->desk->apply(
                new Plan(
                    $title,
                    "Looked at {$section->name} as {$person->fullName()} sees it. Nothing was changed.",
                    [],
                ),
                $section,
                $request,
                Action::Seen,
            );
        }

        return StudentLook::of($section, $person, $students, Person::signedIn($request));
    }

    #[Answers(PlanView::class, 'What archiving a section would do')]
    public function archivePlan(Section $section): PlanView
    {
        $seed = $this->kit->seed();

        return PlanView::of($this->planArchive($section, $seed), $seed, Action::Archive);
    }

    #[Answers(SectionDetail::class, 'Archive a section, as looked at')]
    #[Takes(AsSeen::class)]
    public function archive(Section $section, Request $request): SectionDetail
    {
        $wish = Wishes::of(AsSeen::class, $request);
        $this->ledger->holding(['sections' => [$section->id]], function () use ($section, $request, $wish): void {
            $plan = $this->planArchive($section, $this->kit->fresh($wish->seed));
            $wish->mustBe($plan, $section->name);
            $this->desk->apply($plan, $section, $request, Action::Archive);
        });

        return $this->reader->detail(Section::query()->findOrFail($section->id), Person::signedIn($request), null);
    }

    private function planArchive(Section $section, string $seed): Plan
    {
        $made = $this->kit->ids($seed)->instant();

        return Sections::archive(
            $this->desk->row($section),
            $this->desk->of(Records\JoinCode::class, $section),
            $this->desk->of(Records\Invitation::class, $section),
            $this->desk->of(Records\JoinRequest::class, $section),
            $this->desk->of(Records\RoomPass::class, $section),
            SchoolDay::at($section->school_id, $made),
            $made,
        );
    }
}
