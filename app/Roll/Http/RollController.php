<?php

declare(strict_types=1);

namespace App\Roll\Http;

use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Roll\Roll;
use App\Roll\Views\PersonDetail;
use App\Roll\Views\PersonPage;
use Illuminate\Http\Request;
use Illuminate\Validation\Rule;

final class RollController
{
    public function __construct(private readonly Roll $roll) {}

    #[Answers(PersonPage::class, 'People of a school, by name')]
    #[
        Takes([
            'kind?' => 'student|guardian|staff',
            'q?' => 'string',
            'grade?' => 'string',
            'problem?' => 'unplaced|never_signed_in|no_guardian|no_card',
            'after?' => 'string',
        ]),
    ]
    public function index(School $school, Request $request): PersonPage
    {
        $request->validate([
            'kind' => 'nullable|in:student,guardian,staff',
            'q' => 'nullable|string|max:100',
            'grade' => 'nullable|string|max:2',
            'problem' => ['nullable', Rule::in(Roll::PROBLEMS)],
            'after' => 'nullable|string|max:800',
        ]);

        return $this->roll->page(
            $school,
            $request->string('kind')->value(),
            $request->string('q')->value(),
            $request->string('grade')->value(),
            $request->string('problem')->value(),
            $request->string('after')->value(),
        );
    }

    #[Answers(PersonPage::class, 'The few people a text fits best')]
    #[Takes(['q' => 'string'])]
    public function find(School $school, Request $request): PersonPage
    {
        $request->validate(['q' => 'required|string|max:100']);
        $found = $this->roll->find($school, $request->string('q')->value());

        return new PersonPage($found, null, count($found));
    }

    #[Answers(PersonDetail::class, 'One person')]
    public function show(Person $person, Request $request): PersonDetail
    {
        return $this->roll->detail($person, Coordinators::schoolsOf($request->user()?->getAuthIdentifier()));
    }
}
