<?php

declare(strict_types=1);

namespace App\Guardians\Http;

use App\Guardians\FamilyDoor;
use App\Guardians\Http\Wishes\FamilyAskWish;
use App\Guardians\Http\Wishes\FamilyCodeWish;
use App\Guardians\InviteDesk;
use App\Guardians\TieReader;
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
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Phone;

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
        $address =
            MailAddress::read($wish->email) ?? throw new Refusal('That is not a complete mail address.', 'email');
        [$letter, $student] = $this->door->open($request, Wishes::of(FamilyCodeWish::class, $request)->code);
        $phone = null;
        if ($wish->phone !== null && trim($wish->phone) !== '') {
            $school = School::query()->findOrFail($student->schoolId());
            $phone =
                Phone::read($wish->phone, $school->country) ??
                throw new Refusal('That is not a phone number. Leave it empty, or type all of it.', 'phone');
        }
        $name = NameReader::mend(
            new PersonName(NameReader::tidy($wish->givenName), NameReader::tidy($wish->familyName)),
        );
        if ($name->given === '' && $name->family === '') {
            throw new Refusal('Type your name.', 'given_name');
        }
        $this->apply($request, $letter, $student, new Claimant($name, $address->address, $phone));

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
        $this->tries->guard(...$limits);
        $this->tries->count(...$limits);
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
            // A mailbox is not filled by somebody who asks again and again; whoever asks is not told of it either.
            $sent = [Limit::ResetPerson, "guardian {$decision->whom->person->id}"];
            if (!$this->tries->isOver($sent)) {
                $this->tries->count($sent);
                $this->invites->linkTo(School::query()->findOrFail($student->schoolId()), $decision->whom->person->id);
            }

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
