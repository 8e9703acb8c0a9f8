<?php

declare(strict_types=1);

namespace App\Access;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\CoreKit;
use App\Platform\SchoolDay;
use App\Platform\Takes;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Codes\JoinCode;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Placement\Enrolling;
use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\StalePlan;

/** Coming into a section with its code and an account. */
final class JoinController
{
    public function __construct(private readonly JoinDesk $desk, private readonly Ledger $ledger, private readonly Snapshots $snapshots, private readonly CoreKit $kit)
    {
    }

    #[Answers(CodeCheck::class, 'Whether something typed can be a join code')]
    #[Takes(['code' => 'string'])]
    public function check(Request $request): CodeCheck
    {
        $request->validate(['code' => 'required|string|max:40']);
        try {
            return new CodeCheck(true, JoinCode::parse($request->string('code')->value())->written(), '', '');
        } catch (MalformedCode $e) {
            return new CodeCheck(false, '', $e->mistake->value, $e->getMessage());
        }
    }

    #[Answers(Joined::class, 'Come into a section with the account signed in')]
    #[Takes(['code' => 'string'])]
    public function store(Request $request): Joined
    {
        $request->validate(['code' => 'required|string|max:40']);
        /** @var Person $person */
        $person = $request->user();
        [$section, $code] = $this->desk->open($request, $request->string('code')->value());
        try {
            return $this->comeIn($section, $code, $person);
        } catch (StalePlan) {
            // Two presses of the button: the other one was first.
            return $this->comeIn($section, $code, $person);
        }
    }

    /** Where a cap is set, one comes in after the other: each is counted under the code's lock before the next. */
    private function comeIn(Row $section, Row $code, Person $person): Joined
    {
        $plan = DB::transaction(function () use ($section, $code, $person): Plan {
            $capped = $code->maybe('cap') !== null;
            if ($capped) {
                DB::table('join_codes')->where('id', $code->id)->lockForUpdate()->first(['id']);
            }
            $row = $this->snapshots->find(Entity::Person, $person->id) ?? throw new Refusal('This account is gone.');
            $enrollments = $this->snapshots->list(Entity::Enrollment, fn ($q) => $q->where('person_id', $person->id));
            $plan = Enrolling::byCode($section, $code, $row, $enrollments, $capped ? $this->desk->cameIn($code) : 0, $this->kit->ids($this->kit->seed()), SchoolDay::today($section->text('school_id')), $this->kit->now());
            if (! $plan->isEmpty()) {
                $this->ledger->apply($plan, $section->text('school_id'), $person, 'join');
            }

            return $plan;
        }, 3);

        return new Joined($section->text('name'), $plan->isEmpty(), '');
    }
}
