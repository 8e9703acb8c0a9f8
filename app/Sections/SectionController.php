<?php

declare(strict_types=1);

namespace App\Sections;

use App\Ledger\Ledger;
use App\Ledger\PlanView;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\School;
use App\Models\SchoolYear;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\Takes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Placement\Enrolling;
use Vantrel\Core\Placement\Sections;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Values\GradeLevel;

/** Sections and their rosters. */
final class SectionController
{
    public function __construct(private readonly SectionReader $reader, private readonly Ledger $ledger, private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    #[Answers(SectionPage::class, 'Sections of a school year; the current one unless another is named')]
    #[Takes(['year?' => 'string'])]
    public function index(School $school, Request $request): SectionPage
    {
        $request->validate(['year' => 'string|max:26']);
        $year = SchoolYear::query()->where('school_id', $school->id)
            ->when($request->filled('year'), fn ($q) => $q->where('id', $request->string('year')->value()), fn ($q) => $q->where('state', 'current'))->first() ?? throw new NotFoundHttpException;
        /** @var Person $reader */
        $reader = $request->user();

        return new SectionPage($this->reader->list($school, $year, $reader));
    }

    #[Answers(SectionDetail::class, 'Make a section')]
    #[Takes(['name' => 'string', 'kind' => 'homeroom|class', 'grade?' => 'string'])]
    public function store(School $school, Request $request): SectionDetail
    {
        $request->validate(['name' => 'required|string|max:80', 'kind' => 'required|in:homeroom,class', 'grade' => 'nullable|string|max:20']);
        $year = SchoolYear::query()->where('school_id', $school->id)->where('state', 'current')->firstOrFail();
        $grade = $request->filled('grade') ? (GradeLevel::read($request->string('grade')->value()) ?? throw new Refusal('That is not a grade. Write PK, K, or a number from 1 to 13.', 'grade')) : null;
        $seed = $this->kit->seed();
        $plan = Sections::make(
            $school->id, $year->id, NameReader::tidy($request->string('name')->value()), $request->string('kind')->value(), $grade?->code(), null,
            $this->snapshots->list(Entity::Section, fn ($q) => $q->where('school_year_id', $year->id)), $this->kit->codeBook($seed), $this->kit->ids($seed), $this->kit->today($school), $this->kit->now(),
        );
        $this->ledger->apply($plan, $school->id, $this->actor($request), 'section');

        return $this->reader->detail(Section::query()->findOrFail($this->kit->ids($seed)->for('section')), $this->actor($request));
    }

    #[Answers(SectionDetail::class, 'One section with its roster, staff and invitations')]
    public function show(Section $section, Request $request): SectionDetail
    {
        return $this->reader->detail($section, $this->actor($request));
    }

    #[Answers(null, 'Take a student out of a section, as of today')]
    public function remove(Section $section, Person $person, Request $request): Response
    {
        $enrollment = $this->snapshots->list(Entity::Enrollment, fn ($q) => $q->where('section_id', $section->id)->where('person_id', $person->id)->whereNull('ends_on'))[0]
            ?? throw new NotFoundHttpException;
        $plan = Enrolling::remove($this->row($section), $this->snapshots->find(Entity::Person, $person->id) ?? throw new NotFoundHttpException, $enrollment, $this->kit->today(School::query()->find($section->school_id)));
        $this->ledger->apply($plan, $section->school_id, $this->actor($request), 'remove');

        return response()->noContent();
    }

    #[Answers(PlanView::class, 'What archiving a section would do')]
    public function archivePlan(Section $section): PlanView
    {
        $seed = $this->kit->now();

        return PlanView::of($this->planArchive($section, $seed), $seed);
    }

    #[Answers(SectionDetail::class, 'Archive a section, as looked at')]
    #[Takes(['seed' => 'string', 'fingerprint' => 'string'])]
    public function archive(Section $section, Request $request): SectionDetail
    {
        $request->validate(['seed' => 'required|date_format:Y-m-d H:i:s', 'fingerprint' => 'required|string|size:64']);
        $plan = $this->planArchive($section, $request->string('seed')->value());
        if (! hash_equals($plan->fingerprint(), $request->string('fingerprint')->value())) {
            throw new StalePlan([$section->name]);
        }
        $this->ledger->apply($plan, $section->school_id, $this->actor($request), 'archive');

        return $this->reader->detail(Section::query()->findOrFail($section->id), $this->actor($request));
    }

    private function planArchive(Section $section, string $now): Plan
    {
        return Sections::archive(
            $this->row($section),
            $this->snapshots->list(Entity::JoinCode, fn ($q) => $q->where('section_id', $section->id)),
            $this->snapshots->list(Entity::Invitation, fn ($q) => $q->where('section_id', $section->id)), $now,
        );
    }

    private function row(Section $section): Row
    {
        return $this->snapshots->find(Entity::Section, $section->id) ?? throw new NotFoundHttpException;
    }

    private function actor(Request $request): Person
    {
        /** @var Person $person */
        $person = $request->user();

        return $person;
    }
}
