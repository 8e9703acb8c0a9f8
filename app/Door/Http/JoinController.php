<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Door\Http\Wishes\CodeWish;
use App\Door\JoinDesk;
use App\Door\Views\CodeCheck;
use App\Door\Views\Joined;
use App\Ledger\Ledger;
use App\Models\Person;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records;

/** Coming into a section with its code and an account. */
final class JoinController
{
    public function __construct(
        private readonly JoinDesk $desk,
        private readonly Ledger $ledger,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(CodeCheck::class, 'Whether something typed can be a join code')]
    #[Takes(CodeWish::class)]
    public function check(Request $request): CodeCheck
    {
        $wish = Wishes::of(CodeWish::class, $request);
        try {
            return new CodeCheck(true, CodeSymbols::parse($wish->code)->written(), '', '', '');
        } catch (MalformedCode $e) {
            return new CodeCheck(false, '', $e->mistake->value, $e->mistake->sentence(), $e->symbol);
        }
    }

    #[Answers(Joined::class, 'Come into a section with the account signed in')]
    #[Takes(CodeWish::class)]
    public function store(Request $request): Joined
    {
        $wish = Wishes::of(CodeWish::class, $request);
        $person = Person::signedIn($request);
        [$section, $code] = $this->desk->open($request, $wish->code);
        try {
            return $this->comeIn($section, $code, $person);
        } catch (StalePlan) {
            // Two presses of the button: the other one was first.
            return $this->comeIn($section, $code, $person);
        }
    }

    private function comeIn(Records\Section $section, Records\JoinCode $code, Person $person): Joined
    {
        // Where a cap is set, one comes in after the other: each is counted under the code's lock before the next.
        $already =
            $code->cap() === null
                ? $this->enroll($section, $code, $person, 0)
                : DB::transaction(function () use ($section, $code, $person): bool {
                    DB::selectOne('SELECT id FROM join_codes WHERE id = ? FOR UPDATE', [$code->id]);

                    return $this->enroll($section, $code, $person, $this->desk->cameIn($code));
                }, 3);

        return new Joined($section->name(), $already, '');
    }

    /** @return bool whether they were in already */
    private function enroll(Records\Section $section, Records\JoinCode $code, Person $person, int $cameIn): bool
    {
        // The person was read with the session a moment ago; the plan changes nothing of it.
        $row = new Records\Person($person->id, $person->version, [
            'kind' => $person->kind,
            'state' => $person->state,
            'given_name' => $person->given_name,
            'family_name' => $person->family_name,
        ]);
        /** @var list<object{id: string, version: int, ends_on: string|null}> $read */
        $read = DB::select('SELECT id, version, ends_on FROM enrollments WHERE person_id = ? AND section_id = ?', [
            $person->id,
            $section->id,
        ]);
        $enrollments = array_map(
            fn(object $e): Records\Enrollment => new Records\Enrollment($e->id, (int) $e->version, [
                'section_id' => $section->id,
                'ends_on' => $e->ends_on,
            ]),
            $read,
        );
        $plan = JoinCodes::enter(
            $section,
            $code,
            $row,
            $enrollments,
            $cameIn,
            $this->kit->occasion($section->schoolId()),
        );
        if (!$plan->isEmpty()) {
            $this->ledger->apply($plan, $section->schoolId(), $person, Action::Join);
        }

        return $plan->isEmpty();
    }
}
