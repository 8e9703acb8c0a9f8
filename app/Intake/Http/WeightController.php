<?php

declare(strict_types=1);

namespace App\Intake\Http;

use App\Intake\ImportPlanner;
use App\Intake\KnownStudents;
use App\Intake\SchoolWeights;
use App\Intake\Views\WeightTable;
use App\Models\Import;
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
        private readonly ImportPlanner $planner,
        private readonly KnownStudents $known,
    ) {}

    #[Answers(WeightTable::class, 'What matches are judged by, with what this list suggests')]
    public function show(Import $import): WeightTable
    {
        return WeightTable::of(
            $this->weights->of($import->school_id),
            $this->weights->areOwn($import->school_id),
            $this->estimate($import),
        );
    }

    #[Answers(WeightTable::class, 'Judge the lists of this school by what this list suggests')]
    public function accept(Import $import, Request $request): WeightTable
    {
        $estimation = $this->estimate($import);
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
        $this->weights->accept($import->school_id, $estimation, $actor);

        return WeightTable::of($this->weights->of($import->school_id), true, $estimation);
    }

    #[Answers(null, 'Go back to the published weights')]
    public function forget(School $school): Response
    {
        $this->weights->forget($school->id);

        return response()->noContent();
    }

    private function estimate(Import $import): Estimation
    {
        return Estimation::of(
            Matcher::patterns($this->planner->subjects($import), $this->known->all()),
            $this->weights->of($import->school_id),
        );
    }
}
