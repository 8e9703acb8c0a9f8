<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Guardians\ClaimDesk;
use App\Guardians\Http\Wishes\ApproveWish;
use App\Guardians\Http\Wishes\RefuseWish;
use App\Guardians\Http\Wishes\TiesWish;
use App\Guardians\Views\ClaimPage;
use App\Guardians\Views\InRecord;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;

/** Guardian requests to be connected, answered by a coordinator. */
final readonly class ClaimController
{
    public function __construct(private ClaimDesk $desk) {}

    #[Answers(ClaimPage::class, 'Guardian requests, beside what is on record')]
    public function index(School $school): ClaimPage
    {
        return $this->desk->page($school);
    }

    #[Answers(InRecord::class, 'Guardians of the student in the school’s record, asked now')]
    public function inRecord(School $school, string $claim): InRecord
    {
        return new InRecord($this->desk->inRecord($school, $claim));
    }

    #[Answers(ClaimPage::class, 'Connect a guardian who asks')]
    #[Takes(ApproveWish::class)]
    public function approve(School $school, string $claim, Request $request): ClaimPage
    {
        $wish = Wishes::of(ApproveWish::class, $request);
        $said = $this->desk->approve($school, $claim, $wish->guardian, Person::signedIn($request));

        return $this->desk->page($school, $said);
    }

    #[Answers(ClaimPage::class, 'Connect all of these who are clear')]
    #[Takes(TiesWish::class)]
    public function approveMany(School $school, Request $request): ClaimPage
    {
        $wish = Wishes::of(TiesWish::class, $request);
        $said = $this->desk->approveMany($school, $wish->ids, Person::signedIn($request));

        return $this->desk->page($school, $said);
    }

    #[Answers(ClaimPage::class, 'Turn down somebody who asks')]
    #[Takes(RefuseWish::class)]
    public function refuse(School $school, string $claim, Request $request): ClaimPage
    {
        $wish = Wishes::of(RefuseWish::class, $request);
        $said = $this->desk->refuse($school, $claim, $wish->reason, Person::signedIn($request));

        return $this->desk->page($school, $said);
    }
}
