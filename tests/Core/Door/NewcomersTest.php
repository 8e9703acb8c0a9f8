<?php

declare(strict_types=1);

// mutates: Accounts

use Vantrel\Core\Accounts\StudentAccount;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\JoinRequests;
use Vantrel\Core\Door\Newcomer;
use Vantrel\Core\Door\Newcomers;
use Vantrel\Core\Matching\Beginnings;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\InvitationState;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Staffing\InvitationStanding;

$ids = new Ids('01K3CNQ0000000000000000000');
$token = Token::draw(new KeyedStream(str_repeat('k', 32), 'token'));

it('lets newcomers ask, by what the code is for', function () use ($ids, $token): void {
    $ask = fn(Newcomer $n, array $terms = [], ?SchoolRules $rules = null, int $waiting = 0): array => Newcomers::ask(
        heron(),
        doorCode($terms),
        $n,
        $rules ?? school(),
        0,
        $waiting,
        $token,
        new Occasion($ids, '2026-09-01', AT),
    )->plan->changes[0]->after;
    expect($ask(newcomer())['state'])->toBe('waiting')->and($ask(newcomer())['token_hash'])->toBeNull();
    $mail = $ask(newcomer(mail: 'marlo@lanternfield.example'), ['who' => 'domain']);
    expect($mail['state'])->toBe('mail')->and($mail['token_hash'])->toBe($token->hash());
    expect(fn() => $ask(newcomer(mail: 'marlo@elsewhere.example'), ['who' => 'domain']))
        ->toThrow(Refusal::class, '@lanternfield.example')
        ->and(fn() => $ask(newcomer(), ['who' => 'domain']))
        ->toThrow(Refusal::class)
        ->and(fn() => $ask(newcomer(), ['who' => 'accounts']))
        ->toThrow(Refusal::class, 'have an account')
        ->and(fn() => $ask(newcomer(), ['cap' => 0]))
        ->toThrow(Refusal::class)
        ->and(fn() => $ask(newcomer(), [], null, Newcomers::MOST_WAITING))
        ->toThrow(Refusal::class, 'Too many are waiting')
        ->and(fn() => $ask(newcomer(null)))
        ->toThrow(Refusal::class, 'born')
        ->and(fn() => $ask(newcomer('2031-01-01')))
        ->toThrow(Refusal::class, 'year')
        ->and(fn() => $ask(newcomer(null, null, null, ''), [], school('none')))
        ->toThrow(Refusal::class, 'first name')
        ->and(fn() => $ask(newcomer(), [], school('number')))
        ->toThrow(Refusal::class, 'student number');
});

it('keeps the rule for those under 13, to the day of the birthday', function () use ($ids, $token): void {
    $ask = fn(string $born, string $rule, string $who = 'domain'): array => Newcomers::ask(
        heron(),
        doorCode(['who' => $who]),
        newcomer($born, 'marlo@lanternfield.example'),
        school('none', $rule),
        0,
        0,
        $token,
        new Occasion($ids, '2026-09-01', AT),
    )->plan->changes[0]->after;
    expect($ask('2013-09-01', 'approve')['state'])
        ->toBe('mail')
        ->and($ask('2013-09-02', 'approve'))
        ->toMatchArray(['state' => 'waiting', 'cause' => 'under_13'])
        ->and($ask('2013-09-02', 'allow')['state'])
        ->toBe('mail')
        ->and(fn() => $ask('2013-09-02', 'listed'))
        ->toThrow(Refusal::class, 'under 13');
});

$request = new JoinRequest('req', 1, [
    'section_id' => 'sec',
    'join_code_id' => 'c1',
    'state' => 'waiting',
    'given_name' => 'Marlo',
    'family_name' => 'Quill',
    'birth_date' => '2010-05-04',
    'number' => null,
    'email' => null,
    'password' => 'hash',
    'token_hash' => null,
    'person_id' => null,
    'answered_at' => null,
    'answered_by' => null,
    'sign_in_id' => null,
]);

it('answers a request once: in with an account, in as somebody of the list, or turned away', function () use (
    $ids,
    $request,
): void {
    $in = JoinRequests::approve(
        heron(),
        $request,
        new UserNames(['marlo.quill' => true], []),
        'me',
        null,
        new Occasion($ids, '2026-09-01', AT),
    )->plan;
    expect(tables($in))
        ->toBe(['people', 'sign_ins', 'enrollments', 'join_requests'])
        ->and($in->changes[1]->after)
        ->toMatchArray(['user_name' => 'marlo.quill2', 'password' => 'hash'])
        ->and($in->changes[3]->after)
        ->toMatchArray(['state' => 'approved', 'password' => null, 'sign_in_id' => $in->changes[1]->id])
        ->and($in->changes[0]->after)
        ->toMatchArray(['email' => null, 'email_state' => 'claimed']);
    // Somebody known: a likeness alone enrolls, and hands nobody an account.
    $signIn = new SignIn('s', 1, [
        'person_id' => 'noor',
        'user_name' => 'noor.haddad',
        'passphrase' => 'sealed',
        'password' => null,
        'last_signed_in_at' => null,
    ]);
    $as = fn(
        bool $proven = false,
        bool $used = false,
        ?SignIn $s = null,
        array $in = [],
        Way $way = Way::Passphrase,
    ) => JoinRequests::approveAs(
        heron(),
        $request,
        new StudentAccount(
            child(),
            $s === null ? [] : [$s->with($used ? ['last_signed_in_at' => '2026-08-30 08:00:00'] : [])],
            $way,
        ),
        $proven,
        $in,
        'me',
        new Occasion($ids, '2026-09-01', AT),
    );
    expect(tables($as()))
        ->toBe(['enrollments', 'join_requests'])
        ->and(tables($as(in: [new Enrollment('e', 1, ['section_id' => 'sec', 'ends_on' => null])])))
        ->toBe(['join_requests'])
        ->and(tables($as(true, true, $signIn)))
        ->toBe(['enrollments', 'join_requests'])
        ->and(tables($as(true, false, $signIn, way: Way::School)))
        ->toBe(['enrollments', 'join_requests'])
        ->and($as(false, false, $signIn)->changes[1]->after)
        ->not->toHaveKey('sign_in_id');
    // With a proof, the account that nobody has used is its owner's.
    $theirs = $as(true, false, $signIn);
    expect(tables($theirs))
        ->toBe(['sign_ins', 'enrollments', 'join_requests'])
        ->and($theirs->changes[0]->after)
        ->toBe(['password' => 'hash', 'passphrase' => null])
        ->and($theirs->changes[2]->after['sign_in_id'])
        ->toBe('s');
    expect(JoinRequests::proves($request, child()->with(['birth_date' => '2010-05-04']), 'birth_date'))
        ->toBeTrue()
        ->and(JoinRequests::proves($request, child(), 'birth_date'))
        ->toBeFalse()
        ->and(JoinRequests::proves($request, child(), 'number'))
        ->toBeFalse()
        ->and(JoinRequests::proves($request, child(), 'none'))
        ->toBeFalse();
    expect(tables(JoinRequests::refuseAll(heron(), [$request, $request->with([])], 'me', AT)))
        ->toBe(['join_requests'])
        ->and(fn() => JoinRequests::refuseAll(heron(), [], 'me', AT))
        ->toThrow(Refusal::class, 'Nobody waits');
    expect(tables(JoinRequests::refuse(heron(), $request, 'me', AT)))->toBe(['join_requests']);
    foreach (['approved', 'refused'] as $state) {
        expect(fn() => JoinRequests::refuse(heron(), $request->with(['state' => $state]), 'me', AT))->toThrow(
            Refusal::class,
            'has been answered',
        );
    }
    expect(
        fn() => JoinRequests::approve(
            heron('archived'),
            $request,
            new UserNames([], []),
            'me',
            null,
            new Occasion($ids, '2026-09-01', AT),
        )->plan,
    )
        ->toThrow(Refusal::class, 'archived')
        ->and(
            fn() => JoinRequests::approveAs(
                heron(),
                $request,
                new StudentAccount(child('left'), [], Way::Passphrase),
                true,
                [],
                'me',
                new Occasion($ids, '2026-09-01', AT),
            ),
        )
        ->toThrow(Refusal::class);
});

it('gives the account of nobody who has used it, by whichever of its user names', function (): void {
    $signIn = fn(?string $last, ?string $password): SignIn => new SignIn('s', 1, [
        'last_signed_in_at' => $last,
        'password' => $password,
    ]);
    $fresh = $signIn(null, null);
    $used = fn(SignIn ...$all): bool => (new StudentAccount(child(), array_values($all), Way::Card))->isUsed();
    expect([
        $used(),
        $used($fresh),
        $used($fresh, $signIn('2026-08-30 08:00:00', null)),
        $used($fresh, $signIn(null, 'hash')),
    ])->toBe([false, false, true, true]);
});

it('gives the account on the list to who shows to be its owner, while nobody has used it', function () use (
    $ids,
): void {
    $signIn = new SignIn('s', 1, [
        'person_id' => 'noor',
        'user_name' => 'noor.haddad',
        'passphrase' => 'sealed',
        'password' => null,
    ]);
    $claim = fn(
        SignIn $s,
        ?string $last = null,
        array $in = [],
        array $terms = [],
        int $cameIn = 0,
        Way $way = Way::Passphrase,
    ) => Newcomers::claim(
        heron(),
        doorCode($terms),
        new StudentAccount(child(), [$s->with(['last_signed_in_at' => $last])], $way),
        'hash',
        $in,
        $cameIn,
        new Occasion($ids, '2026-09-01', AT),
    );
    expect(tables($claim($signIn)))
        ->toBe(['sign_ins', 'enrollments'])
        ->and($claim($signIn)->changes[0]->after)
        ->toBe(['password' => 'hash', 'passphrase' => null])
        ->and(
            tables(
                $claim(
                    $signIn,
                    null,
                    [new Enrollment('e', 1, ['section_id' => 'sec', 'ends_on' => null])],
                    ['cap' => 1],
                    1,
                ),
            ),
        )
        ->toBe(['sign_ins'])
        ->and(fn() => $claim($signIn, AT))
        ->toThrow(Refusal::class, 'in use already')
        ->and(fn() => $claim($signIn, way: Way::School))
        ->toThrow(Refusal::class, 'own sign-on')
        ->and(fn() => $claim($signIn->with(['password' => 'other'])))
        ->toThrow(Refusal::class, 'in use already')
        ->and(fn() => $claim($signIn, null, [], ['cap' => 1], 1))
        ->toThrow(Refusal::class, 'All places');
});

it('compares what a newcomer says with the record as a value', function (): void {
    expect(Newcomers::fits(child(), 'birth_date', '2018-02-11'))
        ->toBeTrue()
        ->and(Newcomers::fits(child(), 'birth_date', '2018-11-02'))
        ->toBeFalse()
        ->and(Newcomers::fits(child(), 'number', ' 20417 '))
        ->toBeTrue()
        ->and(Newcomers::fits(child(), 'number', '20418'))
        ->toBeFalse()
        ->and(Newcomers::fits(child()->with(['birth_date' => null]), 'birth_date', ''))
        ->toBeFalse();
});

it('looks for a newcomer by beginnings that other ways of writing the name share', function (
    string $given,
    string $family,
    string $listed,
    bool $found,
): void {
    $begins = Beginnings::of(new PersonName($given, $family));
    $words = explode(' ', NameKey::of($listed));
    $has = fn(array $beginnings): bool => array_filter(
        $words,
        fn(string $word): bool => array_filter($beginnings, fn(string $b): bool => str_starts_with($word, $b)) !== [],
    ) !== [];
    expect($begins !== null && $has($begins->given) && $has($begins->family))->toBe($found);
})->with([
    ['Noor', 'Haddad', 'Noor Haddad', true],
    ['Bill', 'Okafor', 'William Okafor', true],
    ['Peggy', 'Marsh', 'Margaret Marsh', true],
    ['Haddad', 'Noor', 'Noor Haddad', true],
    ['Оля', 'Шевчук', 'Olya Shevchuk', true],
    ['Olya', 'Shevchuk', 'Оля Шевчук', true],
    ['Lucía', 'Vega', 'Lucia Marin Vega', true],
    ['Lucía', 'Marin Vega', 'Lucia Vega', true],
    ['Noor', 'Haddad', 'Kai Wu', false],
    ['Noor', '', 'Noor Haddad', false],
]);

it('says what has become of an invitation', function (): void {
    expect(InvitationStanding::at(InvitationState::Invited, '2026-09-15 10:00:00', AT))
        ->toBe(InvitationStanding::Invited)
        ->and(InvitationStanding::at(InvitationState::Invited, AT, AT))
        ->toBe(InvitationStanding::Expired)
        ->and(InvitationStanding::at(InvitationState::Accepted, '2026-08-01 10:00:00', AT))
        ->toBe(InvitationStanding::Accepted);
});
