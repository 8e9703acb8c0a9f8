<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Guardians\FamilyDoor;
use App\Guardians\Http\Wishes\FamilyAskWish;
use App\Guardians\Http\Wishes\FamilyCodeWish;
use App\Guardians\InviteDesk;
use App\Guardians\TieReader;
use App\Guardians\TypedGuardian;
use App\Guardians\Views\FamilyAnswer;
use App\Guardians\Views\FamilyView;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person as PersonModel;
use App\Models\School;
use App\Platform\Answers;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\TryCounter;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Guardians\Claims;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Records;

/** A guardian with the code of a family letter: says who they are, or asks from the account they have. */
final readonly class FamilyController
{
    public function __construct(
        private FamilyDoor $door,
        private Ledger $ledger,
        private Snapshots $snapshots,
        private PlannerKit $kit,
        private TryCounter $tries,
        private TieReader $ties,
        private InviteDesk $invites,
    ) {}

    #[Answers(FamilyView::class, 'Whose letter a family code stands on: the school, and the given name of the child')]
    #[Takes(FamilyCodeWish::class)]
    public function check(Request $request): FamilyView
    {
        [, $student] = $this->door->open($request, Wishes::of(FamilyCodeWish::class, $request)->code);

        return new FamilyView(
            School::query()->findOrFail($student->schoolId())->name,
            $student->preferredName() ?? $student->givenName(),
        );
    }

    #[Answers(null, 'Ask to be connected, without an account: the school checks, then a link comes by mail')]
    #[Takes(FamilyCodeWish::class, FamilyAskWish::class)]
    public function ask(Request $request): Response
    {
        $wish = Wishes::of(FamilyAskWish::class, $request);
        [$letter, $student] = $this->door->open($request, Wishes::of(FamilyCodeWish::class, $request)->code);
        $school = School::query()->findOrFail($student->schoolId());
        $this->apply($request, $letter, $student, TypedGuardian::of($wish, $school->country));

        return response()->noContent();
    }

    #[Answers(FamilyAnswer::class, 'Ask to be connected with a further child, from an account')]
    #[Takes(FamilyCodeWish::class)]
    public function connect(Request $request): FamilyAnswer
    {
        $actor = PersonModel::signedIn($request);
        [$letter, $student] = $this->door->open($request, Wishes::of(FamilyCodeWish::class, $request)->code);
        $person = $this->snapshots->find(Records\Person::class, $actor->id);
        $connected = $this->apply(
            $request,
            $letter,
            $student,
            new Claimant(
                new PersonName($actor->given_name, $actor->family_name),
                (string) ($actor->email ?? ''),
                $actor->phone,
                $person,
            ),
        );

        return new FamilyAnswer($connected);
    }

    private function apply(
        Request $request,
        Records\FamilyLetter $letter,
        Records\Person $student,
        Claimant $claimant,
    ): bool {
        $limits = [[Limit::AskCode, $letter->id], [Limit::AskAddress, (string) $request->ip()]];
        $this->tries->take(...$limits);
        $policy = TieReader::policy($student->schoolId());
        $planned = Claims::ask(
            $letter,
            $student,
            $claimant,
            $this->snapshots->list(Records\GuardianClaim::class, fn($q) => $q->where('letter_id', $letter->id)),
            $this->ties->record($student->id),
            $policy,
            $this->kit->occasion($student->schoolId()),
        );
        $decision = $planned->result;
        if ($decision->sends && $decision->whom !== null) {
            $this->invites->linkOnAsking(
                School::query()->findOrFail($student->schoolId()),
                $decision->whom->person->id,
            );

            return false;
        }
        if ($planned->plan->isEmpty()) {
            return false;
        }
        $this->ledger->apply(
            $planned->plan,
            $student->schoolId(),
            $request->user() instanceof PersonModel ? $request->user() : null,
            Action::AskGuardian,
        );

        return $decision->connects;
    }
}
