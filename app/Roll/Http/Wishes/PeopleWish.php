<?php

declare(strict_types=1);

namespace App\Roll\Http\Wishes;

use App\Platform\Must;
use Illuminate\Validation\ValidationException;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Roll\AccountProblem;

/** Which people of a school, or of several, in which order, and from where on. */
final readonly class PeopleWish
{
    /**
     * @param  string  $sort best is by how well the text fits, or by name where there is none
     * @param  bool  $left those who have left, in place of those who are there
     * @param  string  $school id, for only one of several
     * @param  string  $problem words of {@see AccountProblem}, with commas between them: who has all of them
     */
    public function __construct(
        public ?PersonKind $kind = null,
        #[Must('max:100')] public string $q = '',
        #[Must('max:2')] public string $grade = '',
        #[Must('max:200')] public string $problem = '',
        public bool $left = false,
        #[Must('max:26')] public string $school = '',
        #[Must('in:best,name,grade,number,email')] public string $sort = 'best',
        public bool $down = false,
        #[Must('max:800')] public string $after = '',
    ) {}

    /**
     * @return list<AccountProblem>
     *
     * @throws ValidationException where a word names none
     */
    public function problems(): array
    {
        return array_map(
            fn(string $word): AccountProblem => AccountProblem::tryFrom($word) ??
                throw ValidationException::withMessages(['problem' => "There is no problem \"$word\"."]),
            $this->problem === '' ? [] : array_values(array_unique(explode(',', $this->problem))),
        );
    }
}
