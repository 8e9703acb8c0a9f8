<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Guardians\ClaimDesk;
use App\Guardians\Http\Wishes\ApproveWish;
use App\Guardians\Http\Wishes\ChildWish;
use App\Guardians\Http\Wishes\RefuseWish;
use App\Guardians\Http\Wishes\TiesWish;
use App\Guardians\SeekDesk;
use App\Guardians\Views\ClaimPage;
use App\Guardians\Views\InRecord;
use App\Guardians\Views\MaybeChildren;
use App\Models\Person;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\Takes;
use App\Platform\Wishes;
use Illuminate\Http\Request;

/** Guardian requests to be connected, answered by a coordinator. */
final readonly class ClaimController
{
    public function __construct(private ClaimDesk $desk, private SeekDesk $seek) {}

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

    #[Answers(MaybeChildren::class, 'Students whom a guardian without a letter may mean')]
    public function maybe(School $school, string $sought): MaybeChildren
    {
        return new MaybeChildren($this->seek->candidates($school, $sought));
    }

    #[Answers(ClaimPage::class, 'The child a guardian without a letter means has been found')]
    #[Takes(ChildWish::class)]
    public function found(School $school, string $sought, Request $request): ClaimPage
    {
        $wish = Wishes::of(ChildWish::class, $request);
        $said = $this->seek->found($school, $sought, $wish->student, Person::signedIn($request));

        return $this->desk->page($school, $said);
    }

    #[Answers(ClaimPage::class, 'Turn down a guardian without a letter')]
    #[Takes(RefuseWish::class)]
    public function refuseSought(School $school, string $sought, Request $request): ClaimPage
    {
        $wish = Wishes::of(RefuseWish::class, $request);
        $said = $this->seek->refuse($school, $sought, $wish->reason, Person::signedIn($request));

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
