<?php

declare(strict_types=1);

namespace App\Sections\Http;

use App\Ledger\PlanView;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\AsSeen;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use App\Sections\Http\Wishes\RenameSectionsWish;
use App\Sections\SectionDesk;
use Illuminate\Http\Request;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Sections\RenameWish;
use Vantrel\Core\Sections\Renaming;

/** Renaming what bears a name throughout a school year. */
final class RenameController
{
    public function __construct(private readonly SectionDesk $desk, private readonly PlannerKit $kit) {}

    #[Answers(PlanView::class, 'What renaming a homeroom, and all that is called after it, would do')]
    #[Takes(RenameSectionsWish::class)]
    public function plan(School $school, Request $request): PlanView
    {
        return PlanView::of($this->make($school, $request), $this->kit->seed(), Action::Section);
    }

    #[Answers(PlanView::class, 'Do it, as looked at')]
    #[Takes(RenameSectionsWish::class, AsSeen::class)]
    public function store(School $school, Request $request): PlanView
    {
        $seen = Wishes::of(AsSeen::class, $request);
        $seed = $this->kit->fresh($seen->seed);
        $plan = $this->make($school, $request);
        $seen->mustBe($plan, 'the sections of this year');
        $this->desk->applyAt($plan, $school->id, $request, Action::Section);

        return PlanView::of($plan, $seed, Action::Section);
    }

    private function make(School $school, Request $request): Plan
    {
        $wish = Wishes::of(RenameSectionsWish::class, $request);
        $year = $this->desk->yearToWorkIn($school, $wish->year);

        return Renaming::plan(
            $this->desk->snapshots->sectionsOf($year->id),
            new RenameWish($year->id, $wish->words, $wish->instead),
        );
    }
}
