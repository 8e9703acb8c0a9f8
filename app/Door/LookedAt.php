<?php

declare(strict_types=1);

namespace App\Door;

use App\Door\Views\Door;
use App\Door\Views\JoinRequestView;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Platform\PlannerKit;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Door\Newcomer;
use Vantrel\Core\Door\Newcomers;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Records\CodeUse;
use Vantrel\Core\Records\SchoolRules;

/**
 * What a code typed by somebody who is not signed in opens; and, where many wrong codes came, what is said then: the
 * same of every code, right or wrong. Whoever asks waits for a person to look, by a code that is none for nobody. So a
 * guess is worth nothing, and nobody is shut out.
 */
final readonly class LookedAt
{
    public function __construct(
        private JoinDesk $desk,
        private Ledger $ledger,
        private Snapshots $snapshots,
        private PlannerKit $kit,
    ) {}

    /**
     * @return array{Records\Section, Records\JoinCode, Records\School, SchoolRules} section, code, school and its rules
     *
     * @throws Refusal where it opens nothing
     */
    public function open(Request $request, string $typed): array
    {
        [$section, $code] = $this->desk->open($request, $typed);
        $school =
            $this->snapshots->find(Records\School::class, $section->schoolId()) ?? throw new NotFoundHttpException();

        return [$section, $code, $school, SchoolRules::of($school)];
    }

    public static function first(): Refusal
    {
        return new Refusal(
            'There have been many wrong codes here today, so your teacher looks at whoever comes. Ask to come in.',
        );
    }

    /** @throws Refusal where it cannot be a code: its check symbol says so to anybody */
    public function door(Request $request, string $typed): Door
    {
        $this->known($request, $typed);

        return new Door('', '', CodeUse::Approval, true, false, 'no', [], true, true);
    }

    /** @param  string  $password as stored */
    public function ask(
        Request $request,
        string $typed,
        PersonName $name,
        ?string $birthDate,
        string $password,
    ): JoinRequestView {
        $this->desk->countAsking($request);
        $known = $this->known($request, $typed);
        $id = '';
        try {
            if ($known !== null) {
                [$section, $code, $school, $rules] = $known;
                $planned = Newcomers::ask(
                    $section,
                    $code->who() === CodeUse::Domain ? $code->with(['who' => CodeUse::Approval->value]) : $code,
                    new Newcomer($name, $birthDate, null, null, $password, looked: true),
                    $rules,
                    $this->desk->cameIn($code),
                    DB::table('join_requests')
                        ->where('join_code_id', $code->id)
                        ->whereIn('state', ['waiting', 'mail'])
                        ->count(),
                    null,
                    $this->kit->occasion($school->id),
                );
                $this->ledger->apply($planned->plan, $school->id, null, Action::Ask);
                $id = $planned->result->requestId;
            }
        } catch (Refusal) {
            // Why this code lets nobody in would say that it is one.
        }
        JoinDesk::waits($request, $id, $password);

        return new JoinRequestView('waiting', '', '', '');
    }

    /**
     * @return array{Records\Section, Records\JoinCode, Records\School, SchoolRules}|null null where the code is none
     */
    private function known(Request $request, string $typed): ?array
    {
        $this->desk->symbols($typed);
        try {
            return $this->open($request, $typed);
        } catch (Refusal) {
            return null;
        }
    }
}
