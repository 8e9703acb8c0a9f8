<?php

declare(strict_types=1);

namespace App\Door\Http;

use App\Accounts\Opened;
use App\Accounts\SignInDesk;
use App\Door\DoorMatch;
use App\Door\Http\Wishes\ClaimWish;
use App\Door\Http\Wishes\CodeWish;
use App\Door\Http\Wishes\ConfirmWish;
use App\Door\Http\Wishes\JoinRequestWish;
use App\Door\Http\Wishes\NameWish;
use App\Door\JoinDesk;
use App\Door\LookedAt;
use App\Door\Views\Door;
use App\Door\Views\Joined;
use App\Door\Views\JoinRequestView;
use App\Door\Views\ListedName;
use App\Door\Views\ListedNames;
use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\Mail\NewcomerMail;
use App\Models\Person;
use App\Models\SignIn;
use App\Platform\Answers;
use App\Platform\Known;
use App\Platform\PlannerKit;
use App\Platform\Takes;
use App\Platform\Wishes;
use Carbon\CarbonImmutable;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\Mail;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Accounts\PasswordRules;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Accounts\StudentAccount;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\JoinRequests;
use Vantrel\Core\Door\Newcomer;
use Vantrel\Core\Door\Newcomers;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records;
use Vantrel\Core\Records\CodeUse;
use Vantrel\Core\Records\RequestCause;
use Vantrel\Core\Records\RequestState;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Values\Language;
use Vantrel\Core\Values\MailAddress;

/**
 * Somebody at the door with a code and no account: takes the account that the school's list holds for them, or asks to
 * come in. What is shown of those on the list is the display name, and only of names that fit what was typed.
 */
final class NewcomerController
{
    public function __construct(
        private readonly JoinDesk $desk,
        private readonly LookedAt $looked,
        private readonly DoorMatch $match,
        private readonly SignInDesk $signIns,
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
        private readonly PlannerKit $kit,
    ) {}

    #[Answers(Door::class, 'What a code opens, and what somebody without an account is asked')]
    #[Takes(CodeWish::class)]
    public function door(Request $request): Door
    {
        $wish = Wishes::of(CodeWish::class, $request);
        if ($this->desk->manyCodes($request)) {
            return $this->looked->door($request, $wish->code);
        }
        [$section, $code, $school, $rules] = $this->looked->open($request, $wish->code);
        $domain = $code->who() === CodeUse::Domain;

        return new Door(
            $section->name(),
            $school->name(),
            $code->who(),
            $rules->asksBirthDate(),
            $rules->check === 'number',
            $domain ? 'required' : ($rules->mail ? 'optional' : 'no'),
            $domain ? $rules->domains : [],
            !$domain,
            false,
        );
    }

    #[Answers(ListedNames::class, 'Students of the list whom somebody of this name may be')]
    #[Takes(NameWish::class)]
    public function names(Request $request): ListedNames
    {
        $wish = Wishes::of(NameWish::class, $request);
        if ($this->desk->manyCodes($request)) {
            return new ListedNames([], '');
        }
        [$section, $code, , $rules] = $this->looked->open($request, $wish->code);
        if ($rules->check === 'none') {
            return new ListedNames([], '');
        }
        $this->desk->countNames($code);

        return new ListedNames(
            array_map(
                fn(Candidate $c): ListedName => new ListedName(
                    $this->key($code, $c->subject->id),
                    (new PersonName($c->subject->given, $c->subject->family))->display(),
                ),
                $this->listed($section, $this->name($wish->givenName, $wish->familyName), $rules),
            ),
            $rules->check,
        );
    }

    #[Answers(Joined::class, 'Take the account that the list holds, with what shows that it is one’s own')]
    #[Takes(ClaimWish::class)]
    public function claim(Request $request): Joined
    {
        $wish = Wishes::of(ClaimWish::class, $request);
        if ($this->desk->manyCodes($request)) {
            throw LookedAt::first();
        }
        [$section, $code, $school, $rules] = $this->looked->open($request, $wish->code);
        $personId = null;
        foreach ($this->listed($section, $this->name($wish->givenName, $wish->familyName), $rules) as $candidate) {
            if (hash_equals($this->key($code, $candidate->subject->id), $wish->key)) {
                $personId = $candidate->subject->id;
            }
        }
        $person = $personId === null ? null : $this->snapshots->find(Records\Person::class, $personId);
        if ($person === null) {
            throw new Refusal('That name is not on the list any more. Type your name again.');
        }
        $this->desk->takeProof($request, $code, $person->id);
        if (!Newcomers::fits($person, $rules->check, $wish->proof)) {
            throw Newcomers::unfit();
        }
        $this->desk->giveBackProof($request, $code, $person->id);
        $this->mustBeGood($wish->password, [$person->givenName(), $person->familyName(), $section->name()]);
        $account = new StudentAccount(
            $person,
            $this->snapshots->list(Records\SignIn::class, fn($q) => $q->where('person_id', $person->id)),
            SignInPolicy::read($school->signInPolicy())->way($person->grade()),
        );
        $hash = Hash::make($wish->password);
        DB::transaction(function () use ($section, $code, $account, $hash, $school): void {
            DB::table('join_codes')
                ->where('id', $code->id)
                ->lockForUpdate()
                ->first(['id']);
            $plan = Newcomers::claim(
                $section,
                $code,
                $account,
                $hash,
                $this->snapshots->list(
                    Records\Enrollment::class,
                    fn($q) => $q->where('person_id', $account->person->id),
                ),
                $this->desk->cameIn($code),
                $this->kit->occasion($school->id),
            );
            $this->ledger->apply($plan, $school->id, null, Action::Claim);
        });
        $signIn = $account->signIn() ?? throw new NotFoundHttpException();
        $this->signIns->byNewSecret($request, Person::query()->findOrFail($person->id), $signIn->id);

        return new Joined($section->name(), false, $signIn->userName());
    }

    #[Answers(JoinRequestView::class, 'Ask to come in with a new account')]
    #[Takes(JoinRequestWish::class)]
    public function ask(Request $request): JoinRequestView
    {
        $wish = Wishes::of(JoinRequestWish::class, $request);
        if ($this->desk->manyCodes($request)) {
            $name = $this->name($wish->givenName, $wish->familyName);
            $this->mustBeGood((string) $wish->password, [$name->given, $name->family]);

            return $this->looked->ask(
                $request,
                $wish->code,
                $name,
                $wish->birthDate,
                Hash::make((string) $wish->password),
            );
        }
        [$section, $code, $school, $rules] = $this->looked->open($request, $wish->code);
        $name = $this->name($wish->givenName, $wish->familyName);
        $email = null;
        if ($wish->email !== null) {
            $email =
                MailAddress::read($wish->email)->address ??
                throw new Refusal('That is not an e-mail address.', 'email');
        }
        $domain = $code->who() === CodeUse::Domain;
        if (!$domain && $wish->password !== null) {
            $this->mustBeGood($wish->password, [$name->given, $name->family, $section->name()]);
        }
        $this->desk->countAsk($request, $code);
        $token = Token::draw($this->kit->random($this->kit->seed() . ' newcomer'));
        $newcomer = new Newcomer(
            $name,
            $wish->birthDate,
            $wish->number === null ? null : trim($wish->number),
            $email,
            !$domain && $wish->password !== null ? Hash::make($wish->password) : null,
        );
        $planned = Newcomers::ask(
            $section,
            $code,
            $newcomer,
            $rules,
            $this->desk->cameIn($code),
            DB::table('join_requests')
                ->where('join_code_id', $code->id)
                ->whereIn('state', ['waiting', 'mail'])
                ->count(),
            $token,
            $this->kit->occasion($school->id),
        );
        $made = $planned->result;
        $hash = $newcomer->passwordHash;
        $this->ledger->apply(
            $planned->plan,
            $school->id,
            null,
            Action::Ask,
            within: function () use ($made, $email, $school, $section, $name, $token, $request): void {
                if ($made->state === RequestState::Mail && $email !== null) {
                    Mail::to($email)->send(
                        new NewcomerMail(
                            $school->id,
                            $school->name(),
                            $section->name(),
                            $name->full(),
                            rtrim((string) config('app.url'), '/') . '/confirm#' . $token->plain,
                            Newcomers::MAIL_DAYS,
                            $request->getPreferredLanguage(Language::WRITTEN),
                        ),
                    );
                }
            },
        );
        JoinDesk::waits($request, $made->requestId, $hash);

        return new JoinRequestView($made->state->value, $section->name(), '', '');
    }

    #[
        Answers(
            JoinRequestView::class,
            'What has become of the request this browser made; signed in where the password chosen here ' .
                'became the account’s',
        ),
    ]
    public function asked(Request $request): JoinRequestView
    {
        [$id, $stamp] = JoinDesk::waiting($request) ?? [null, ''];
        if ($id === '') {
            return new JoinRequestView('waiting', '', '', '');
        }
        $row = $id === null ? null : $this->snapshots->find(Records\JoinRequest::class, $id);
        if ($row === null) {
            return new JoinRequestView('none', '', '', '');
        }
        if ($row->state() === RequestState::Waiting && $row->cause() === RequestCause::ManyCodes) {
            return new JoinRequestView('waiting', '', '', '');
        }
        $section = $this->snapshots->find(Records\Section::class, $row->sectionId());
        $userName = $how = '';
        if ($row->state() === RequestState::Approved) {
            // A request that a mail has answered is its owner's, wherever it was made; a person known before signs in
            // as before.
            $how = $row->answeredBy() === null ? 'mail' : ($row->signInId() === null ? 'card' : '');
            $person = Person::query()->find((string) $row->personId());
            $signIn =
                $how === ''
                    ? SignIn::query()
                        ->where('id', (string) $row->signInId())
                        ->where('person_id', (string) $row->personId())
                        ->first()
                    : null;
            // Only what was chosen here opens it, while it is fresh: not the password that stands there by now.
            $fresh = CarbonImmutable::parse((string) $row->answeredAt(), 'UTC')->addSeconds(Lifetime::LetIn->value);
            $chosen = $signIn?->password;
            if ($person?->state === 'active' && $chosen !== null && hash_equals(Opened::stampOf($chosen), $stamp)) {
                $userName = $signIn->user_name;
                if ($fresh->isFuture()) {
                    $this->signIns->byNewSecret($request, $person, $signIn->id);
                } else {
                    $how = 'password';
                }
            } elseif ($how === '') {
                $how = 'card';
            }
        }
        if (in_array($row->state(), [RequestState::Approved, RequestState::Refused], true)) {
            JoinDesk::waitsNoMore($request);
        }

        return new JoinRequestView($row->state()->value, (string) $section?->name(), $userName, $how);
    }

    #[
        Answers(
            Joined::class,
            'Confirm an address of the school with the link of a mail, and choose the password: the account is made',
        ),
    ]
    #[Takes(ConfirmWish::class)]
    public function confirm(Request $request): Joined
    {
        $wish = Wishes::of(ConfirmWish::class, $request);
        $row =
            $this->snapshots->list(
                Records\JoinRequest::class,
                fn($q) => $q->where('token_hash', Token::hashOf($wish->token))->where('state', 'mail'),
            )[0] ?? throw new NotFoundHttpException();
        if (CarbonImmutable::parse($row->madeAt(), 'UTC')->addDays(Newcomers::MAIL_DAYS)->isPast()) {
            throw new Refusal('This link is older than {{days}} days. Type the code again.', null, [
                'days' => Newcomers::MAIL_DAYS,
            ]);
        }
        $section =
            $this->snapshots->find(Records\Section::class, $row->sectionId()) ?? throw new NotFoundHttpException();
        $this->mustBeGood($wish->password, [$row->givenName(), $row->familyName(), $section->name()]);
        $planned = JoinRequests::approve(
            $section,
            $row,
            $this->kit->userNames(),
            null,
            Hash::make($wish->password),
            $this->kit->occasion($section->schoolId()),
        );
        $this->ledger->apply($planned->plan, $section->schoolId(), null, Action::LetIn);
        $signIn = SignIn::query()->findOrFail($planned->result->signInId);
        $this->signIns->byNewSecret($request, Person::query()->findOrFail($signIn->person_id), $signIn->id);

        return new Joined($section->name(), false, $signIn->user_name);
    }

    /**
     * Only those whose record holds what is asked as a proof, and whose account nobody has used.
     *
     * @return list<Candidate>
     */
    private function listed(Records\Section $section, PersonName $name, SchoolRules $rules): array
    {
        $found = $this->match->of($section->schoolId(), $name, null, null, $section->grade());
        $used = DB::table('sign_ins')
            ->whereIn('person_id', array_map(fn(Candidate $c): string => $c->subject->id, $found))
            ->where(fn($q) => $q->whereNotNull('last_signed_in_at')->orWhereNotNull('password'))
            ->pluck('person_id')
            ->all();

        return array_values(
            array_filter(
                $found,
                fn(Candidate $c): bool => ($rules->check === 'number'
                    ? $c->subject->number
                    : $c->subject->birthDate) !== '' && !in_array($c->subject->id, $used, true),
            ),
        );
    }

    private function key(Records\JoinCode $code, string $personId): string
    {
        return hash_hmac('sha256', "$code->id $personId", (string) config('app.key'));
    }

    private function name(string $given, string $family): PersonName
    {
        return NameReader::mend(new PersonName(NameReader::tidy($given), NameReader::tidy($family)));
    }

    /** @param  list<string>  $personal */
    private function mustBeGood(string $password, array $personal): void
    {
        PasswordRules::forStudents()->mustTake($password, Known::passwords(), $personal);
    }
}
