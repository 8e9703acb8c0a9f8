<?php

declare(strict_types=1);

namespace App\YearTurn\Http;

use App\Ledger\Ledger;
use App\Ledger\LedgerLine;
use App\Ledger\PlanView;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\Takes;
use App\YearTurn\Views\YearTurnStart;
use App\YearTurn\YearTurnRequest;
use App\YearTurn\YearTurns;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\StalePlan;

/** Rehearsing the year turn as often as wanted, and doing it once. */
final class YearTurnController
{
    private const RULES = [
        'name' => 'required|string|max:20',
        'begins' => 'required|date_format:Y-m-d',
        'last' => 'required|date_format:Y-m-d|after:begins',
        'held_back' => 'array|max:2000',
        'held_back.*' => 'ulid',
        'carry' => 'required|boolean',
    ];

    public function __construct(
        private readonly YearTurns $turns,
        private readonly Ledger $ledger,
        private readonly CoreKit $kit,
    ) {}

    #[Answers(YearTurnStart::class, 'The year that is, and the one that would follow')]
    public function show(School $school): YearTurnStart
    {
        return $this->turns->start($school);
    }

    #[Answers(PlanView::class, 'Rehearse: the full plan, nothing changed')]
    #[
        Takes([
            'name' => 'string',
            'begins' => 'string',
            'last' => 'string',
            'held_back?' => 'list<string>',
            'carry' => 'bool',
            'seed?' => 'string',
        ]),
    ]
    public function rehearse(School $school, Request $request): PlanView
    {
        $request->validate(self::RULES);
        $seed = $request->filled('seed') ? $this->kit->seedOf($request) : $this->kit->seed();

        return PlanView::of($this->turns->plan($school, $this->wish($request), $seed), $seed, Action::YearTurn);
    }

    #[Answers(LedgerLine::class, 'Turn the year, as looked at')]
    #[
        Takes([
            'name' => 'string',
            'begins' => 'string',
            'last' => 'string',
            'held_back?' => 'list<string>',
            'carry' => 'bool',
            'seed' => 'string',
            'fingerprint' => 'string',
        ]),
    ]
    public function store(School $school, Request $request): LedgerLine
    {
        $request->validate([...self::RULES, 'fingerprint' => 'required|string|size:64']);
        /** @var Person $actor */
        $actor = $request->user();
        $sections = array_map(
            strval(...),
            DB::table('sections')->where('school_id', $school->id)->orderBy('id')->pluck('id')->all(),
        );

        // The school's own row holds back whoever adds people or sections to it just now.
        return $this->ledger->holding(['schools' => [$school->id], 'sections' => $sections], function () use (
            $school,
            $request,
            $actor,
        ): LedgerLine {
            $plan = $this->turns->plan($school, $this->wish($request), $this->kit->seedOf($request));
            if (!hash_equals($plan->fingerprint(), $request->string('fingerprint')->value())) {
                throw new StalePlan(['the students or sections of the year']);
            }

            return LedgerLine::of(
                $this->ledger->apply($plan, $school->id, $actor, Action::YearTurn),
                $actor->fullName(),
            );
        });
    }

    private function wish(Request $request): YearTurnRequest
    {
        /** @var list<string> $held */
        $held = $request->array('held_back');

        return new YearTurnRequest(
            $request->string('name')->value(),
            $request->string('begins')->value(),
            $request->string('last')->value(),
            $held,
            $request->boolean('carry'),
        );
    }
}
