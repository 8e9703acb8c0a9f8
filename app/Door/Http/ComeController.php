<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Accounts\SignInDesk;
use App\Door\DoorMatch;
use App\Door\Http\Wishes\ComeWish;
use App\Door\JoinDesk;
use App\Door\Views\ComeView;
use App\Door\Views\Joined;
use App\Door\Views\JoinRequestView;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Models\Person;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\Known;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\TokenWish;
use App\Platform\Wishes;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\PasswordRules;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\JoinRequests;
use Vantrel\Core\Door\Newcomer;
use Vantrel\Core\Door\StudentInvites;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Records\SchoolRules;

/** Whoever holds the link of an invitation into a section. It signs nobody in to an account that is there. */
final readonly class ComeController
{
    public function __construct(private Ledger $ledger, private Snapshots $snapshots, private PlannerKit $kit) {}

    #[Answers(ComeView::class, 'What the link of an invitation into a section leads to')]
    #[Takes(TokenWish::class)]
    public function show(Request $request): ComeView
    {
        [$invitation, $section, $school] = $this->open(Wishes::of(TokenWish::class, $request)->token);
        DB::table('student_invitations_opened')->insertOrIgnore([
            'invitation_id' => $invitation->id,
            'opened_at' => $this->kit->now(),
        ]);
        $student = $this->student($invitation);
        $rules = SchoolRules::of($school);

        return new ComeView(
            $school->name(),
            $section->name(),
            $student === null ? '' : $student->preferredName() ?? $student->givenName(),
            $invitation->isFamily(),
            $rules->asksBirthDate(),
            $rules->check === 'number',
        );
    }

    #[
        Answers(
            Joined::class,
            'The student it was sent for comes in; where nobody on record has the address, whoever is signed in',
        ),
    ]
    #[Takes(TokenWish::class)]
    public function accept(Request $request): Joined
    {
        [$invitation, $section] = $this->open(Wishes::of(TokenWish::class, $request)->token);
        $own = $invitation->isFamily() ? null : $this->signedIn($request);
        $student = $this->student($invitation) ?? ($own ?? throw new NotFoundHttpException());
        $guardian = $invitation->guardianId();
        $this->ledger->apply(
            StudentInvites::accept(
                $section,
                $invitation,
                $student,
                $this->snapshots->list(Records\Enrollment::class, fn($q) => $q->where('person_id', $student->id)),
                $guardian === null
                    ? null
                    : $this->snapshots->list(
                            Records\Guardianship::class,
                            fn($q) => $q->where('student_id', $student->id)->where('guardian_id', $guardian),
                        )[0] ?? null,
                $this->kit->occasion($section->schoolId()),
            ),
            $section->schoolId(),
            null,
            Action::Join,
        );

        return new Joined($section->name(), false, '');
    }

    #[Answers(null, 'Say that it is not for one')]
    #[Takes(TokenWish::class)]
    public function decline(Request $request): Response
    {
        [$invitation, $section] = $this->open(Wishes::of(TokenWish::class, $request)->token);
        $this->ledger->apply(
            StudentInvites::decline($section, $invitation, $this->kit->now()),
            $section->schoolId(),
            null,
            Action::Decline,
        );

        return response()->noContent();
    }

    #[Answers(JoinRequestView::class, 'Ask to come in with it, with a new account')]
    #[Takes(ComeWish::class)]
    public function ask(Request $request, DoorMatch $match, JoinDesk $desk, SignInDesk $signIns): JoinRequestView
    {
        $wish = Wishes::of(ComeWish::class, $request);
        [$invitation, $section, $school] = $this->open($wish->token);
        if ($invitation->personId() !== null) {
            throw new Refusal('This link is for somebody who has an account. Come in with it as it is.');
        }
        $name = NameReader::mend(
            new PersonName(NameReader::tidy($wish->givenName), NameReader::tidy($wish->familyName)),
        );
        PasswordRules::forStudents()->mustTake($wish->password, Known::passwords(), [
            $name->given,
            $name->family,
            $section->name(),
        ]);
        $desk->countAsking($request);
        $number = $wish->number === null || trim($wish->number) === '' ? null : trim($wish->number);
        $newcomer = new Newcomer($name, $wish->birthDate, $number, $invitation->email(), Hash::make($wish->password));
        $rules = SchoolRules::of($school);
        $at = $this->kit->occasion($school->id);
        $planned = StudentInvites::ask($section, $invitation, $newcomer, $rules, $at);
        $atOnce = StudentInvites::comesInAtOnce(
            $invitation,
            $newcomer,
            $rules,
            $match->of($school->id, $name, $newcomer->birthDate, $number, $section->grade()) !== [],
            $at->today,
        );
        $signIn = DB::transaction(function () use ($planned, $section, $school, $atOnce): ?string {
            $this->ledger->apply($planned->plan, $school->id, null, Action::Ask);
            if (!$atOnce) {
                return null;
            }
            $letIn = JoinRequests::approve(
                $section,
                $this->snapshots->find(Records\JoinRequest::class, $planned->result) ??
                    throw new NotFoundHttpException(),
                $this->kit->userNames(),
                null,
                null,
                $this->kit->occasion($school->id),
            );
            $this->ledger->apply($letIn->plan, $school->id, null, Action::LetIn);

            return $letIn->result->signInId;
        });
        if ($signIn === null) {
            JoinDesk::waits($request, $planned->result, $newcomer->passwordHash);

            return new JoinRequestView('waiting', $section->name(), '', '');
        }
        $made = SignIn::query()->findOrFail($signIn);
        $signIns->byNewSecret($request, Person::query()->findOrFail($made->person_id), $made->id);

        return new JoinRequestView('approved', $section->name(), $made->user_name, '');
    }

    /**
     * @return array{Records\StudentInvitation, Records\Section, Records\School} invitation, its section and school
     *
     * @throws Refusal where it opens nothing any more
     */
    private function open(string $token): array
    {
        $invitation =
            $this->snapshots->list(
                Records\StudentInvitation::class,
                fn($q) => $q->where('token_hash', Token::hashOf($token)),
            )[0] ?? throw new Refusal('This link does not work any more. Ask the school for another one.');
        StudentInvites::mustWait($invitation, $this->kit->now());
        $section =
            $this->snapshots->find(Records\Section::class, $invitation->sectionId()) ??
            throw new NotFoundHttpException();
        Enrolling::mustBeOpen($section);

        return [
            $invitation,
            $section,
            $this->snapshots->find(Records\School::class, $section->schoolId()) ?? throw new NotFoundHttpException(),
        ];
    }

    private function signedIn(Request $request): ?Records\Person
    {
        $id = $request->user()?->getAuthIdentifier();

        return is_string($id) ? $this->snapshots->find(Records\Person::class, $id) : null;
    }

    /** Whom it was sent for, by the account they have now. */
    private function student(Records\StudentInvitation $invitation): ?Records\Person
    {
        $id = $invitation->personId();
        $student = $id === null ? null : $this->snapshots->find(Records\Person::class, $id);
        $now = $student?->mergedInto();

        return $now === null ? $student : $this->snapshots->find(Records\Person::class, $now);
    }
}
