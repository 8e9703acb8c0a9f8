<?php

declare(strict_types=1);

namespace App\Intake\Http;

use App\Intake\GradebookDesk;
use App\Intake\Http\Wishes\GradebookWish;
use App\Ledger\PlanView;
use App\Mailroom\NoticeDesk;
use App\Mailroom\Views\NoticePage;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Vantrel\Core\Plan\Action;

/** Work and results of a gradebook: looked at, and brought in as looked at. */
final readonly class GradebookController
{
    public function __construct(private GradebookDesk $desk, private NoticeDesk $notices, private PlannerKit $kit) {}

    #[Answers(PlanView::class, 'What a gradebook’s tables would bring into the sections of a school')]
    #[Takes(GradebookWish::class)]
    public function plan(School $school, Request $request): PlanView
    {
        return $this->look($school, null, $request);
    }

    #[Answers(NoticePage::class, 'Bring it in')]
    #[Takes(GradebookWish::class)]
    public function store(School $school, Request $request): NoticePage
    {
        return $this->bring($school, null, $request);
    }

    #[Answers(PlanView::class, 'What a gradebook’s tables would bring into one section')]
    #[Takes(GradebookWish::class)]
    public function planForSection(Section $section, Request $request): PlanView
    {
        return $this->look(School::query()->findOrFail($section->school_id), $section, $request);
    }

    #[Answers(NoticePage::class, 'Bring it in')]
    #[Takes(GradebookWish::class)]
    public function storeForSection(Section $section, Request $request): NoticePage
    {
        return $this->bring(School::query()->findOrFail($section->school_id), $section, $request);
    }

    private function look(School $school, ?Section $section, Request $request): PlanView
    {
        $wish = $this->wish($request);
        $seed = $this->kit->seed();
        $plan = $this->desk->plan($school, $section, $wish->files, Person::signedIn($request), $seed);

        return PlanView::of($plan, $seed, Action::Notice);
    }

    private function bring(School $school, ?Section $section, Request $request): NoticePage
    {
        $wish = $this->wish($request);
        $said = $this->desk->apply($school, $section, $wish->files, Person::signedIn($request), $wish->seen());

        return $this->notices->page($school->id, $section?->id, $said);
    }

    private function wish(Request $request): GradebookWish
    {
        $bytes = (int) config('vantrel.upload_bytes');

        return Wishes::of(
            GradebookWish::class,
            $request,
            ['files.*' => ['max:' . intdiv($bytes, 1024)]],
            ['files.*' => 'No file arrived, or it is larger than ' . intdiv($bytes, 1024 * 1024) . ' MB.'],
        );
    }
}
