<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\Addresses;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Accounts\CoordinatorRoles;
use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Accounts\Identities;
use Vantrel\Core\Accounts\OffBoarding;
use Vantrel\Core\Accounts\StaffRecords;
use Vantrel\Core\Accounts\TransferRequests;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\Coordinator;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Records\TransferKind;
use Vantrel\Core\Records\TransferRequest;
use Vantrel\Core\Values\Canonical;
use Vantrel\Core\Values\MailAddress;

const ACCOUNTS_NOW = '2026-11-26 09:00:00';

$ids = new Ids('01K3CNQ0000000000000000000');

/** @param  array<string, string|int|null>  $more */
function staffRow(array $more = []): Person
{
    return new Person('petra', 3, [
        'school_id' => 'here',
        'kind' => 'staff',
        'state' => 'active',
        'given_name' => 'Petra',
        'family_name' => 'Okonjo',
        'email' => 'petra@x.example',
        'email_state' => 'confirmed',
        'email_by' => 'school',
        'email_at' => null,
        ...$more,
    ]);
}

function signInRow(?string $password = 'hash', ?string $passphrase = null): SignIn
{
    return new SignIn('si', 1, [
        'person_id' => 'petra',
        'user_name' => 'petra@x.example',
        'password' => $password,
        'passphrase' => $passphrase,
        'temporary' => 0,
    ]);
}

function badgeRow(string $state = 'live'): Badge
{
    return new Badge("b-$state", 1, ['sign_in_id' => 'si', 'state' => $state, 'ended_at' => null]);
}

function identityRow(string $state = 'live'): Identity
{
    return new Identity("i-$state", 1, [
        'person_id' => 'petra',
        'issuer' => 'https://id.example',
        'subject' => 'x',
        'state' => $state,
        'ended_at' => null,
    ]);
}

/** @return array<string, array<string, mixed>> entity and id to what becomes of it */
function changesOf(Plan $plan): array
{
    $found = [];
    foreach ($plan->changes as $change) {
        $found["{$change->entity->value} $change->id"] = $change->after;
    }

    return $found;
}

it('keeps one form of an address or user name, and folds nothing else', function (string $typed, string $kept): void {
    expect(Canonical::of($typed))->toBe($kept)->and(Canonical::of($kept))->toBe($kept);
})->with([
    [' Ines.Halloran@Lanternfield.example ', 'ines.halloran@lanternfield.example'],
    ["\u{00A0}ines@x.example\u{3000}", 'ines@x.example'],
    ["ZOE\u{0308}@x.example", "zo\u{00EB}@x.example"],
    ["\u{00C9}va@x.example", "\u{00E9}va@x.example"],
    // Letters that only look like ASCII stay what they are.
    ["\u{212A}im@x.example", "\u{212A}im@x.example"],
    ["\u{017F}am@x.example", "\u{017F}am@x.example"],
    ["\u{FF49}nes@x.example", "\u{FF49}nes@x.example"],
    ["\u{0130}nes@x.example", "\u{0130}nes@x.example"],
]);

it('never makes an ASCII address of one that is none, letter by letter over all of Unicode', function (): void {
    for ($code = 0x80; $code <= 0x1ffff; $code++) {
        if ($code >= 0xd800 && $code <= 0xdfff) {
            continue;
        }
        $letter = mb_chr($code);
        $kept = Canonical::of("a{$letter}b");
        if (preg_match('/^[\x00-\x7F]*$/', $kept) === 1) {
            throw new RuntimeException(sprintf('U+%04X becomes %s', $code, $kept));
        }
    }
    expect(MailAddress::read(' <Kim@X.example> ')?->address)
        ->toBe('kim@x.example')
        ->and(MailAddress::read("\u{212A}im@x.example")?->address)
        ->not->toBe('kim@x.example');
});

it('confirms an address the school hands out itself, and only claims all others', function (
    string $kind,
    string $address,
    bool $confirmed,
): void {
    $given = Address::given($address, $kind, ['x.example'], AddressSource::Listed, ACCOUNTS_NOW);
    expect($given->confirmed)
        ->toBe($confirmed)
        ->and($given->columns()['email_by'])
        ->toBe($confirmed ? 'school' : 'list');
})->with([
    ['staff', 'a@x.example', true],
    ['student', 'a@x.example', true],
    ['guardian', 'a@x.example', false],
    ['staff', 'a@y.example', false],
    ['student', 'a@sub.x.example', false],
    ['staff', 'a@xx.example', false],
]);

it('says what of an address is new, and never makes a confirmed one less', function (): void {
    $claimed = fn(string $a): Address => Address::claimed($a, AddressSource::Listed, ACCOUNTS_NOW);
    expect($claimed('petra@x.example')->changes(staffRow()))
        ->toBe([])
        ->and($claimed('other@x.example')->changes(staffRow()))
        ->toMatchArray(['email' => 'other@x.example', 'email_state' => 'claimed'])
        ->and(
            Address::confirmed('petra@x.example', AddressSource::School, ACCOUNTS_NOW)->changes(
                staffRow(['email_state' => 'claimed']),
            ),
        )
        ->toMatchArray(['email_state' => 'confirmed', 'email_by' => 'school'])
        ->and(Address::claimed('', AddressSource::Door, ACCOUNTS_NOW)->columns())
        ->toBe(['email' => null, 'email_state' => 'claimed', 'email_by' => null, 'email_at' => null])
        ->and(Address::none()->changes(staffRow()))
        ->toBe([]);
    $confirm = Addresses::confirm(
        staffRow(['email_state' => 'claimed', 'email_by' => 'list']),
        AddressSource::Mail,
        ACCOUNTS_NOW,
    );
    expect($confirm->changes[0]->after)
        ->toBe(['email_state' => 'confirmed', 'email_by' => 'mail', 'email_at' => ACCOUNTS_NOW])
        ->and(fn() => Addresses::confirm(staffRow(['email' => null]), AddressSource::Mail, ACCOUNTS_NOW))
        ->toThrow(Refusal::class);
});

it('ends one way to sign in and leaves the others', function (): void {
    expect(changesOf(Credentials::endSecret(signInRow())))
        ->toBe(['sign_ins si' => ['password' => null]])
        ->and(changesOf(Credentials::endSecret(signInRow(null, 'sealed'))))
        ->toBe(['sign_ins si' => ['passphrase' => null]])
        ->and(changesOf(Credentials::endBadge(badgeRow(), 'Petra', ACCOUNTS_NOW)))
        ->toBe(['badges b-live' => ['state' => 'lost', 'ended_at' => ACCOUNTS_NOW]])
        ->and(changesOf(Credentials::endIdentity(identityRow(), 'Petra', ACCOUNTS_NOW)))
        ->toBe(['identities i-live' => ['state' => 'ended', 'ended_at' => ACCOUNTS_NOW]])
        ->and(fn() => Credentials::endSecret(signInRow(null)))
        ->toThrow(Refusal::class, 'nothing to end')
        ->and(fn() => Credentials::endBadge(badgeRow('lost'), 'Petra', ACCOUNTS_NOW))
        ->toThrow(Refusal::class)
        ->and(fn() => Credentials::endIdentity(identityRow('ended'), 'Petra', ACCOUNTS_NOW))
        ->toThrow(Refusal::class);
});

it('ends all of them at once, and counts what ended', function (): void {
    $plan = Credentials::endAll(
        staffRow(),
        [signInRow(), signInRow(null)],
        [badgeRow(), badgeRow('lost')],
        [identityRow(), identityRow('ended')],
        ACCOUNTS_NOW,
    );
    expect(array_keys(changesOf($plan)))
        ->toBe(['sign_ins si', 'badges b-live', 'identities i-live'])
        ->and($plan->sentence)
        ->toBe(
            'Ends 1 password or passphrase, 1 card and 1 school sign-on of Petra Okonjo at once, with every ' .
                'open session. User names stay.',
        );
    expect(Credentials::endAll(staffRow(), [], [], [], ACCOUNTS_NOW)->isEmpty())->toBeTrue();
});

/** @param  array<string, mixed>  $more */
function recordsOf(array $more = []): StaffRecords
{
    $section = fn(string $id, string $name, string $school = 'here', string $state = 'open'): Section => new Section(
        $id,
        1,
        ['school_id' => $school, 'name' => $name, 'state' => $state],
    );
    $teaches = fn(
        string $section,
        string $role,
        string $who = 'petra',
        ?string $ends = null,
    ): Enrollment => new Enrollment("e-$who-$section", 1, [
        'section_id' => $section,
        'person_id' => $who,
        'role' => $role,
        'begins_on' => '2026-08-24',
        'ends_on' => $ends,
    ]);
    $of = [
        'signIns' => [signInRow()],
        'badges' => [badgeRow()],
        'identities' => [identityRow()],
        'coordinators' => [
            new Coordinator('k', 1, ['person_id' => 'petra', 'school_id' => 'here', 'state' => 'active']),
        ],
        'invitations' => [new Invitation('inv', 1, ['state' => 'invited', 'answered_at' => null])],
        'teaching' => [
            $teaches('heron', 'lead'),
            $teaches('tern', 'lead'),
            $teaches('art', 'co_teacher'),
            $teaches('old', 'lead'),
        ],
        'colleagues' => [$teaches('heron', 'co_teacher', 'marten')],
        'sections' => [
            'heron' => $section('heron', '3 Heron'),
            'tern' => $section('tern', '4 Tern', 'other'),
            'art' => $section('art', 'Art 3'),
            'old' => $section('old', '2 Wren', 'here', 'archived'),
        ],
        ...$more,
    ];

    return new StaffRecords(...$of);
}

it('sees somebody off in one plan: credentials, roles, invitations and sections', function () use ($ids): void {
    $plan = OffBoarding::plan(staffRow(), recordsOf(), null, false, $ids, '2026-11-26', ACCOUNTS_NOW);
    $changes = changesOf($plan);
    expect($changes['people petra'])
        ->toBe(['state' => 'left'])
        ->and($changes['sign_ins si'])
        ->toBe(['password' => null])
        ->and($changes['badges b-live']['state'])
        ->toBe('lost')
        ->and($changes['identities i-live']['state'])
        ->toBe('ended')
        ->and($changes['coordinators k'])
        ->toBe(['state' => 'ended'])
        ->and($changes['invitations inv']['state'])
        ->toBe('withdrawn')
        ->and($changes['enrollments e-petra-heron'])
        ->toBe(['ends_on' => '2026-11-26'])
        ->and($changes)
        ->toHaveKey('enrollments e-petra-art')
        ->not->toHaveKey('enrollments e-petra-old');
    // What is left without a lead is named, each by its name.
    expect($plan->warnings[0])
        ->toContain('2 sections are left without a lead: 3 Heron and 4 Tern')
        ->and($plan->sentence)
        ->toBe(
            'Petra Okonjo leaves the staff today: ends 1 password or passphrase, 1 card and 1 school ' .
                'sign-on, ends 1 role as coordinator, withdraws 1 invitation and leaves 2 sections without a ' .
                'lead. All open sessions end.',
        );
});

it('hands over what is of the school, to somebody who works there', function () use ($ids): void {
    $marten = new Person('marten', 1, [
        'school_id' => 'here',
        'kind' => 'staff',
        'state' => 'active',
        'given_name' => 'Marten',
        'family_name' => 'Vale',
    ]);
    $plan = OffBoarding::plan(
        staffRow(),
        recordsOf(['elsewhere' => ['6 Wren at Copperbrook Middle']]),
        $marten,
        false,
        $ids,
        '2026-11-26',
        ACCOUNTS_NOW,
    );
    $leads = array_values(array_filter($plan->changes, fn(Change $c): bool => $c->inserts()));
    expect($leads)
        ->toHaveCount(1)
        ->and($leads[0]->after)
        ->toMatchArray([
            'section_id' => 'heron',
            'person_id' => 'marten',
            'role' => 'lead',
            'begins_on' => '2026-11-26',
        ])
        ->and(changesOf($plan)['enrollments e-marten-heron'])
        ->toBe(['ends_on' => '2026-11-26'])
        ->and($plan->warnings[0])
        ->toContain('4 Tern')
        ->and($plan->warnings[1])
        ->toContain('6 Wren at Copperbrook Middle')
        ->and(array_column($plan->tallies, 'count'))
        ->toBe([1, 1]);
    expect(fn() => OffBoarding::plan(staffRow(), recordsOf(), staffRow(), false, $ids, '2026-11-26', ACCOUNTS_NOW))
        ->toThrow(Refusal::class, 'somebody else')
        ->and(
            fn() => OffBoarding::plan(
                staffRow(),
                recordsOf(),
                $marten->with(['state' => 'left']),
                false,
                $ids,
                '2026-11-26',
                ACCOUNTS_NOW,
            ),
        )
        ->toThrow(Refusal::class, 'somebody else')
        ->and(
            fn() => OffBoarding::plan(
                staffRow(['state' => 'left']),
                recordsOf(),
                null,
                false,
                $ids,
                '2026-11-26',
                ACCOUNTS_NOW,
            ),
        )
        ->toThrow(Refusal::class, 'left already')
        ->and(
            fn() => OffBoarding::plan(
                staffRow(['kind' => 'student']),
                recordsOf(),
                null,
                false,
                $ids,
                '2026-11-26',
                ACCOUNTS_NOW,
            ),
        )
        ->toThrow(Refusal::class, 'for staff');
});

it('does not leave a school without a coordinator', function () use ($ids): void {
    expect(
        OffBoarding::plan(staffRow(), recordsOf(), null, true, $ids, '2026-11-26', ACCOUNTS_NOW)->blockers[0],
    )->toContain('only coordinator');
    $give = CoordinatorRoles::give(staffRow(), 'here', 'Lanternfield Primary', null, $ids);
    expect($give->changes[0]->after)->toBe(['person_id' => 'petra', 'school_id' => 'here', 'state' => 'active']);
    $role = new Coordinator('k', 4, ['state' => 'ended']);
    expect(CoordinatorRoles::give(staffRow(), 'here', 'Lanternfield Primary', $role, $ids)->changes[0])
        ->toMatchObject(['id' => 'k', 'version' => 4])
        ->and(
            fn() => CoordinatorRoles::give(
                staffRow(),
                'here',
                'Lanternfield Primary',
                $role->with(['state' => 'active']),
                $ids,
            ),
        )
        ->toThrow(Refusal::class, 'already')
        ->and(fn() => CoordinatorRoles::give(staffRow(['state' => 'left']), 'here', 'Lanternfield Primary', null, $ids))
        ->toThrow(Refusal::class, 'does not work here');
});

it('is the same plan again, and undone it gives back all but secrets', function () use ($ids): void {
    $records = recordsOf();
    $plan = OffBoarding::plan(staffRow(), $records, null, false, $ids, '2026-11-26', ACCOUNTS_NOW);
    expect(OffBoarding::plan(staffRow(), $records, null, false, $ids, '2026-11-26', ACCOUNTS_NOW)->fingerprint())->toBe(
        $plan->fingerprint(),
    );
    $tables = [
        'people' => ['petra' => staffRow()],
        'sign_ins' => ['si' => signInRow()],
        'badges' => ['b-live' => badgeRow()],
        'identities' => ['i-live' => identityRow()],
        'coordinators' => ['k' => $records->coordinators[0]],
        'invitations' => ['inv' => $records->invitations[0]],
    ];
    foreach ($records->teaching as $row) {
        $tables['enrollments'][$row->id] = $row;
    }
    $before = new Snapshot($tables);
    expect($before->with($plan)->without($plan))->toEqual($before);
});

function requestRow(string $kind = 'transfer', string $state = 'waiting'): TransferRequest
{
    return new TransferRequest('req', 1, [
        'person_id' => 'kai',
        'from_school_id' => 'here',
        'to_school_id' => 'there',
        'kind' => $kind,
        'state' => $state,
        'asked_by' => null,
        'made_at' => ACCOUNTS_NOW,
        'answered_at' => null,
        'answered_by' => null,
        'said' => json_encode([
            'given_name' => 'Kai',
            'family_name' => 'Wu',
            'birth_date' => '2014-01-01',
            'number' => '070500',
            'grade' => '06',
            'sections' => ['six', 'gone', 'closed'],
            'section_names' => ['6 Tern'],
        ]),
    ]);
}

it('moves a student on the word of the school they are at', function () use ($ids): void {
    $kai = new Person('kai', 2, [
        'school_id' => 'here',
        'kind' => 'student',
        'state' => 'active',
        'given_name' => 'Kai',
        'family_name' => 'Wu',
        'number' => '020500',
        'grade' => '05',
    ]);
    $section = fn(string $id, string $school, string $state = 'open'): Section => new Section($id, 1, [
        'school_id' => $school,
        'name' => "Section $id",
        'state' => $state,
    ]);
    $sections = [
        'five' => $section('five', 'here'),
        'six' => $section('six', 'there'),
        'closed' => $section('closed', 'there', 'archived'),
        'club' => $section('club', 'there'),
    ];
    $in = fn(string $id, string $begins = '2026-08-24'): Enrollment => new Enrollment("e-$id", 1, [
        'section_id' => $id,
        'person_id' => 'kai',
        'begins_on' => $begins,
        'ends_on' => null,
    ]);
    $accept = fn(string $kind, bool $free = true, array $enrollments = []) => TransferRequests::accept(
        requestRow($kind),
        $kai,
        'Copperbrook',
        $enrollments,
        $sections,
        $free,
        $ids,
        'ines',
        '2026-11-26',
        ACCOUNTS_NOW,
    );
    $moves = changesOf($accept('transfer', true, [$in('five'), $in('club')]));
    expect($moves['people kai'])
        ->toBe(['school_id' => 'there', 'number' => '070500', 'grade' => '06'])
        ->and($moves['enrollments e-five'])
        ->toBe(['ends_on' => '2026-11-26'])
        ->and($moves)
        ->not->toHaveKey('enrollments e-club')
        ->and($moves['transfer_requests req'])
        ->toBe(['state' => 'accepted', 'answered_at' => ACCOUNTS_NOW, 'answered_by' => 'ines']);
    $inserted = fn(Plan $p): array => array_values(
        array_map(
            fn(Change $c): string => (string) $c->after['section_id'],
            array_filter($p->changes, fn(Change $c): bool => $c->inserts()),
        ),
    );
    // Only sections of the school that asks, that are open, and that the student is not in.
    expect($inserted($accept('transfer')))
        ->toBe(['six'])
        ->and($inserted($accept('transfer', true, [$in('six')])))
        ->toBe([])
        ->and(changesOf($accept('transfer', false))['people kai'])
        ->not->toHaveKey('number');
    $also = changesOf($accept('also', true, [$in('five')]));
    expect($also)
        ->not->toHaveKey('people kai')
        ->not->toHaveKey('enrollments e-five')
        ->and($inserted($accept('also')))
        ->toBe(['six']);
    expect(
        fn() => TransferRequests::accept(
            requestRow(),
            $kai->with(['school_id' => 'third']),
            'Copperbrook',
            [],
            [],
            true,
            $ids,
            'ines',
            '2026-11-26',
            ACCOUNTS_NOW,
        ),
    )
        ->toThrow(Refusal::class, 'not at your school')
        ->and(TransferKind::Also->wish('Copperbrook'))
        ->toContain('come here too');
});

it('answers a request once', function (): void {
    expect(TransferRequests::refuse(requestRow(), 'Kai Wu', 'ines', ACCOUNTS_NOW)->changes[0]->after['state'])
        ->toBe('refused')
        ->and(TransferRequests::withdraw(requestRow(), 'ines', ACCOUNTS_NOW)->title)
        ->toBe('Request for Kai Wu taken back');
    foreach (
        ['accepted' => 'accepted already', 'refused' => 'turned down already', 'withdrawn' => 'taken this request back']
        as $state => $why
    ) {
        expect(fn() => TransferRequests::refuse(requestRow('transfer', $state), 'Kai', 'ines', ACCOUNTS_NOW))
            ->toThrow(Refusal::class, $why)
            ->and(fn() => TransferRequests::withdraw(requestRow('transfer', $state), 'ines', ACCOUNTS_NOW))
            ->toThrow(Refusal::class, $why);
    }
    expect(
        TransferRequests::said(new TransferRequest('r', 1, ['said' => '{"sections": "no list", "grade": 6}'])),
    )->toBe([
        'given_name' => '',
        'family_name' => '',
        'birth_date' => '',
        'number' => '',
        'grade' => '',
        'sections' => [],
        'section_names' => [],
    ]);
    $plan = new PlanBuilder();
    TransferRequests::ask(
        $plan,
        'new',
        new Person('kai', 1, ['school_id' => 'here']),
        'there',
        TransferKind::Transfer,
        TransferRequests::said(requestRow()),
        'asker',
        ACCOUNTS_NOW,
        'row 2',
        2,
    );
    expect($plan->build('', '')->changes[0]->after)->toMatchArray([
        'from_school_id' => 'here',
        'to_school_id' => 'there',
        'asked_by' => 'asker',
        'state' => 'waiting',
    ]);
});

it('links a sign-on to a person by the provider’s own name for them', function () use ($ids): void {
    $plan = Identities::link('petra', 'Petra Okonjo', 'https://id.example', 'sub-1', $ids, ACCOUNTS_NOW)->plan;
    expect($plan->changes[0]->after)
        ->toMatchArray(['person_id' => 'petra', 'subject' => 'sub-1', 'state' => 'live'])
        ->and($plan->changes[0]->id)
        ->not->toBe(
            Identities::link('petra', 'P', 'https://id.example', 'sub-2', $ids, ACCOUNTS_NOW)->plan->changes[0]->id,
        );
});

it('says of each action whether and how long it can be undone', function (): void {
    foreach (Action::cases() as $action) {
        expect($action->undoDays() === null)->toBe($action->whyNot() !== null);
    }
    expect(Action::YearTurn->undoDays())
        ->toBe(14)
        ->and(Action::Password->whyNot())
        ->toContain('link')
        ->and(array_values(array_filter(Action::cases(), fn(Action $a): bool => $a->undoDays() === null)))
        ->toBe([Action::CleanUp, Action::Password, Action::Redo, Action::SecondFactor, Action::Seen]);
});
