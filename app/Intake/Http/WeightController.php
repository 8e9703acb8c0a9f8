<?php

declare(strict_types=1);

namespace App\Intake\Http;

use App\Intake\IntakePlans;
use App\Intake\KnownStudents;
use App\Intake\SchoolWeights;
use App\Intake\Views\WeightTable;
use App\Models\Intake;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Vantrel\Core\Matching\Estimation;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Plan\Refusal;

/**
 * The weights of the matcher: published, or estimated from a school's own lists and accepted by somebody. Never changed
 * silently.
 */
final class WeightController
{
    public function __construct(
        private readonly SchoolWeights $weights,
        private readonly IntakePlans $planner,
        private readonly KnownStudents $known,
    ) {}

    #[Answers(WeightTable::class, 'What matches are judged by, with what this list suggests')]
    public function show(Intake $intake): WeightTable
    {
        return WeightTable::of(
            $this->weights->of($intake->school_id),
            $this->weights->areOwn($intake->school_id),
            $this->estimate($intake),
        );
    }

    #[Answers(WeightTable::class, 'Judge the lists of this school by what this list suggests')]
    public function accept(Intake $intake, Request $request): WeightTable
    {
        $estimation = $this->estimate($intake);
        if (!$estimation->suffices()) {
            throw new Refusal(
                'This list has too few students who are known (' .
                    (int) $estimation->matches .
                    '; it takes ' .
                    Estimation::LEAST_PAIRS .
                    ') to estimate from. Use a list of a whole grade or school.',
            );
        }
        $actor = Person::signedIn($request);
        $this->weights->accept($intake->school_id, $estimation, $actor);

        return WeightTable::of($this->weights->of($intake->school_id), true, $estimation);
    }

    #[Answers(null, 'Go back to the published weights')]
    public function forget(School $school): Response
    {
        $this->weights->forget($school->id);

        return response()->noContent();
    }

    private function estimate(Intake $intake): Estimation
    {
        return Estimation::of(
            Matcher::patterns($this->planner->subjects($intake), $this->known->all()),
            $this->weights->of($intake->school_id),
        );
    }
}
