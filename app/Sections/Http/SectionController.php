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
use App\Platform\CoreKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use App\Sections\SectionDesk;
use App\Sections\SectionReader;
use App\Sections\Views\SectionDetail;
use App\Sections\Views\SectionPage;
use App\Sections\Views\StudentView;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Sections\Sections;
use Vantrel\Core\Values\GradeLevel;

/** Sections and their rosters. */
final class SectionController
{
    private const RULES = [
        'name' => 'required|string|max:80',
        'kind' => 'required|in:homeroom,class',
        'grade' => 'nullable|string|max:20',
        'period' => 'nullable|string|max:20',
        'seats' => 'nullable|integer',
    ];

    private const TAKES = [
        'name' => 'string',
        'kind' => 'homeroom|class',
        'grade?' => 'string',
        'period?' => 'string',
        'seats?' => 'int',
    ];

    /** Minutes in which the same person looking as the same student is one look. */
    private const ONE_LOOK = 10;

    public function __construct(
        private readonly SectionReader $reader,
        private readonly SectionDesk $desk,
        private readonly Ledger $ledger,
        private readonly CoreKit $kit,
    ) {}

    #[Answers(SectionPage::class, 'Sections of a school year; the current one unless another is named')]
    #[Takes(['year?' => 'string'])]
    public function index(School $school, Request $request): SectionPage
    {
        $request->validate(['year' => 'string|max:26']);
        $year =
            SchoolYear::query()
                ->where('school_id', $school->id)
                ->when(
                    $request->filled('year'),
                    fn($q) => $q->where('id', $request->string('year')->value()),
                    fn($q) => $q->where('state', 'current'),
                )
                ->first() ?? throw new NotFoundHttpException();

        return new SectionPage($this->reader->list($school, $year, $this->desk->actor($request)));
    }

    #[Answers(SectionDetail::class, 'Make a section')]
    #[Takes(self::TAKES)]
    public function store(School $school, Request $request): SectionDetail
    {
        $request->validate(self::RULES);
        $year = SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->firstOrFail();
        $seed = $this->kit->seed();
        $plan = Sections::make(
            $school->id,
            $year->id,
            NameReader::tidy($request->string('name')->value()),
            $request->string('kind')->value(),
            $this->grade($request)?->code(),
            $this->text($request, 'period'),
            $this->seats($request),
            null,
            $this->desk->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->where('school_year_id', $year->id),
            ),
            $this->kit->codeBook($seed),
            $this->kit->ids($seed),
            SchoolDay::today($school->id),
            $this->kit->now(),
        );
        $this->desk->applyAt($plan, $school->id, $request, Action::Section);

        return $this->reader->detail(
            Section::query()->findOrFail($this->kit->ids($seed)->for('section')),
            $this->desk->actor($request),
            null,
        );
    }

    #[Answers(SectionDetail::class, 'Change what a section is called and holds')]
    #[Takes(self::TAKES)]
    public function update(Section $section, Request $request): SectionDetail
    {
        $request->validate(self::RULES);
        $plan = Sections::edit(
            $this->desk->row($section),
            NameReader::tidy($request->string('name')->value()),
            $request->string('kind')->value(),
            $this->grade($request)?->code(),
            $this->text($request, 'period'),
            $this->seats($request),
            $this->desk->snapshots->list(
                Records\Section::class,
                fn(Builder $q): Builder => $q->where('school_year_id', $section->school_year_id),
            ),
        );
        if (!$plan->isEmpty()) {
            $this->desk->apply($plan, $section, $request, Action::Section);
        }

        return $this->reader->detail(Section::query()->findOrFail($section->id), $this->desk->actor($request), null);
    }

    #[Answers(SectionDetail::class, 'One section with its roster, staff and invitations, today or as of another day')]
    #[Takes(['as_of?' => 'string'])]
    public function show(Section $section, Request $request): SectionDetail
    {
        $request->validate(['as_of' => 'nullable|date_format:Y-m-d']);

        return $this->reader->detail(
            $section,
            $this->desk->actor($request),
            $request->filled('as_of') ? $request->string('as_of')->value() : null,
        );
    }

    #[Answers(StudentView::class, 'The section as one of its students sees it: read-only, and recorded')]
    #[Takes(['person?' => 'string'])]
    public function asStudent(Section $section, Request $request): StudentView
    {
        $request->validate(['person' => 'nullable|ulid']);
        $students = $this->reader->students($section);
        $student =
            $students->first(
                fn(object $s): bool => !$request->filled('person') || $s->id === $request->string('person')->value(),
            ) ?? throw new Refusal('There is no such student in this section now.');
        $person = Person::query()->findOrFail($student->id);
        $title = "{$section->name} as {$person->fullName()} sees it";
        // A page that is loaded again is the same look.
        $looked = LedgerEntry::query()
            ->where('school_id', $section->school_id)
            ->where('action', 'seen')
            ->where('actor_id', $this->desk->actor($request)->id)
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

        return $this->reader->asStudent($section, $person, $students, $this->desk->actor($request));
    }

    #[Answers(PlanView::class, 'What archiving a section would do')]
    public function archivePlan(Section $section): PlanView
    {
        $seed = $this->kit->seed();

        return PlanView::of($this->planArchive($section, $seed), $seed, Action::Archive);
    }

    #[Answers(SectionDetail::class, 'Archive a section, as looked at')]
    #[Takes(['seed' => 'string', 'fingerprint' => 'string'])]
    public function archive(Section $section, Request $request): SectionDetail
    {
        $request->validate(['fingerprint' => 'required|string|size:64']);
        $this->ledger->holding(['sections' => [$section->id]], function () use ($section, $request): void {
            $plan = $this->planArchive($section, $this->kit->seedOf($request));
            $this->desk->mustBeAsSeen($plan, $request, $section->name);
            $this->desk->apply($plan, $section, $request, Action::Archive);
        });

        return $this->reader->detail(Section::query()->findOrFail($section->id), $this->desk->actor($request), null);
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

    private function grade(Request $request): ?GradeLevel
    {
        return $request->filled('grade')
            ? GradeLevel::read($request->string('grade')->value()) ??
                    throw new Refusal('That is not a grade. Write PK, K, or a number from 1 to 13.', 'grade')
            : null;
    }

    private function seats(Request $request): ?int
    {
        return $request->filled('seats') ? $request->integer('seats') : null;
    }

    private function text(Request $request, string $field): ?string
    {
        return $request->filled($field) ? trim($request->string($field)->value()) : null;
    }
}
