<?php

declare(strict_types=1);

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\RoomPass;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Sections\Sections;
use Vantrel\Core\Sections\SectionWish;
use Vantrel\Core\Staffing\Invitations;
use Vantrel\Core\Staffing\InviteWish;
use Vantrel\Core\Staffing\StaffRole;

const NOW = '2026-09-01 10:00:00';
const LATER = '2026-09-15 10:00:00';

function openSection(string $state = 'open'): Section
{
    return new Section('sec', 1, ['school_id' => 'school', 'name' => '3 Heron', 'state' => $state, 'grade' => '03']);
}

function pupil(string $kind = 'student', string $state = 'active'): Person
{
    return new Person('noor', 1, [
        'given_name' => 'Noor',
        'family_name' => 'Haddad',
        'kind' => $kind,
        'state' => $state,
        'email' => 'noor@lanternfield.example',
    ]);
}

/** @param  array<string, string|int|null>  $terms */
function theCode(array $terms = []): JoinCode
{
    return new JoinCode('c1', 1, [
        'section_id' => 'sec',
        'state' => 'open',
        'who' => 'approval',
        'starts_at' => null,
        'ends_at' => null,
        'cap' => null,
        ...$terms,
    ]);
}

function book(): CodeBook
{
    return new CodeBook(new KeyedStream(str_repeat('k', 32), 'codes'), [], 0, 100);
}

function token(): Token
{
    return Token::draw(new KeyedStream(str_repeat('k', 32), 'token'));
}

$ids = new Ids('01K3CNQ0000000000000000000');
$code = new JoinCode('c1', 1, ['section_id' => 'sec', 'state' => 'open', 'closed_at' => null]);

it('opens a code, replaces it, closes it', function () use ($ids, $code): void {
    expect(JoinCodes::open(openSection(), [], book(), $ids, NOW)->changes)->toHaveCount(1);
    $replaced = JoinCodes::open(openSection(), [$code], book(), $ids, NOW);
    expect(array_map(fn(Change $c): array => [$c->inserts(), $c->after['state']], $replaced->changes))->toBe([
        [false, 'closed'],
        [true, 'open'],
    ]);
    expect(JoinCodes::close(openSection(), [$code], NOW)->changes[0]->after)
        ->toBe(['state' => 'closed', 'closed_at' => NOW])
        ->and(fn() => JoinCodes::close(openSection(), [], NOW))
        ->toThrow(Refusal::class)
        ->and(fn() => JoinCodes::open(openSection('archived'), [], book(), $ids, NOW))
        ->toThrow(Refusal::class, 'archived');
});

it('lets a student in once', function () use ($ids): void {
    $plan = JoinCodes::enter(openSection(), theCode(), pupil(), [], 0, new Occasion($ids, '2026-09-01', NOW));
    expect($plan->changes[0]->after['source'])->toBe('code');
    $in = new Enrollment('e', 1, ['section_id' => 'sec', 'ends_on' => null]);
    expect(
        JoinCodes::enter(openSection(), theCode(), pupil(), [$in], 0, new Occasion($ids, '2026-09-01', NOW))->isEmpty(),
    )->toBeTrue();
    $left = new Enrollment('e', 1, ['section_id' => 'sec', 'ends_on' => '2026-08-30']);
    expect(
        JoinCodes::enter(
            openSection(),
            theCode(),
            pupil(),
            [$left],
            0,
            new Occasion($ids, '2026-09-01', NOW),
        )->isEmpty(),
    )->toBeFalse();
});

it('lets in no staff, nobody who left, and nobody into an archived section', function () use ($ids): void {
    expect(
        fn() => JoinCodes::enter(
            openSection(),
            theCode(),
            pupil('staff'),
            [],
            0,
            new Occasion($ids, '2026-09-01', NOW),
        ),
    )
        ->toThrow(Refusal::class)
        ->and(
            fn() => JoinCodes::enter(
                openSection(),
                theCode(),
                pupil('student', 'left'),
                [],
                0,
                new Occasion($ids, '2026-09-01', NOW),
            ),
        )
        ->toThrow(Refusal::class)
        ->and(
            fn() => JoinCodes::enter(
                openSection('archived'),
                theCode(),
                pupil(),
                [],
                0,
                new Occasion($ids, '2026-09-01', NOW),
            ),
        )
        ->toThrow(Refusal::class);
});

it('makes no two sections of one name in a year', function () use ($ids): void {
    $make = fn(string $name) => Sections::make(
        'school',
        'year',
        SectionWish::typed($name, SectionKind::ClassSection),
        [openSection()],
        book(),
        new Occasion($ids, '2026-09-01', NOW),
    );
    expect(array_map(fn(Change $c): string => $c->entity->value, $make('4 Tern')->changes))
        ->toBe(['sections', 'join_codes'])
        ->and(fn() => $make('3 HERON'))
        ->toThrow(Refusal::class);
});

it('archives a section with its code, its open invitations, its requests and its room pass', function () use (
    $code,
): void {
    $open = new Invitation('i1', 1, ['state' => 'invited', 'answered_at' => null]);
    $answered = new Invitation('i2', 1, ['state' => 'accepted', 'answered_at' => NOW]);
    $plan = Sections::archive(
        openSection(),
        [$code],
        [$open, $answered],
        [
            new JoinRequest('r1', 1, ['state' => 'waiting', 'password' => 'hash']),
            new JoinRequest('r2', 1, ['state' => 'refused']),
        ],
        [new RoomPass('p1', 1, ['state' => 'live']), new RoomPass('p2', 1, ['state' => 'ended'])],
        '2026-08-31',
        NOW,
    );
    expect(array_map(fn(Change $c): string => "{$c->entity->value} {$c->id}", $plan->changes))
        ->toBe(['sections sec', 'join_codes c1', 'room_passes p1', 'join_requests r1', 'invitations i1'])
        ->and($plan->changes[0]->after['archived_on'])
        ->toBe('2026-08-31')
        ->and(fn() => Sections::archive(openSection('archived'), [], [], [], [], '2026-08-24', NOW))
        ->toThrow(Refusal::class);
});

function asked(string $state = 'invited', string $expires = LATER): Invitation
{
    return new Invitation('inv', 1, [
        'section_id' => 'sec',
        'email' => 'noor@lanternfield.example',
        'role' => 'co_teacher',
        'state' => $state,
        'expires_at' => $expires,
        'person_id' => null,
        'answered_at' => null,
        'begins_on' => null,
        'ends_on' => null,
    ]);
}

function rules(bool $outside = false): SchoolRules
{
    return new SchoolRules('birth_date', false, 'allow', ['lanternfield.example'], $outside);
}

it('invites colleagues of the school, each once, all or none', function () use ($ids): void {
    $invite = fn(
        string $mails,
        StaffRole $role = StaffRole::CoTeacher,
        array $before = [],
        array $staff = [],
        bool $outside = false,
    ) => Invitations::invite(
        openSection(),
        new InviteWish(InviteWish::addressesIn($mails), $role, 'me'),
        $before,
        $staff,
        rules($outside),
        new KeyedStream(str_repeat('k', 32), 'links'),
        $ids,
        NOW,
    )->plan;
    expect($invite('Noor@Lanternfield.Example')->changes[0]->after['email'])
        ->toBe('noor@lanternfield.example')
        ->and($invite('noor@lanternfield.example')->changes[0]->after['token_hash'])
        ->toBe(Token::draw(new KeyedStream(str_repeat('k', 32), 'links'))->hash())
        ->and($invite('noor@lanternfield.example')->changes[0]->after['expires_at'])
        ->toBe(LATER)
        ->and($invite("a@lanternfield.example, b@lanternfield.example;\nA@lanternfield.example")->changes)
        ->toHaveCount(2)
        ->and(
            $invite(
                "\"Vale, Marten\" <a@lanternfield.example>;Kit <b@lanternfield.example>\nc@x.example d@x.example",
                outside: true,
            )->changes,
        )
        ->toHaveCount(4)
        ->and(fn() => $invite('a@lanternfield.example no-address'))
        ->toThrow(Refusal::class, '“no-address” is not an e-mail')
        ->and(fn() => $invite('noor@elsewhere.example'))
        ->toThrow(Refusal::class, 'elsewhere.example is not a mail domain')
        ->and($invite('noor@elsewhere.example', outside: true)->changes)
        ->toHaveCount(1)
        ->and(fn() => $invite('noor@lanternfield.example', StaffRole::Lead))
        ->toThrow(Refusal::class)
        ->and(fn() => $invite(''))
        ->toThrow(Refusal::class, 'from 1 to 30')
        ->and(fn() => $invite('noor@lanternfield.example', StaffRole::CoTeacher, [asked()]))
        ->toThrow(Refusal::class, 'Send it again')
        ->and(fn() => $invite('noor@lanternfield.example', StaffRole::CoTeacher, [], [pupil('staff')]))
        ->toThrow(Refusal::class, 'already');
    expect($invite('noor@lanternfield.example', StaffRole::CoTeacher, [asked('invited', NOW)])->changes)->toHaveCount(
        1,
    );
});

it('gives a substitute dates, and nobody else', function () use ($ids): void {
    $wish = fn(StaffRole $role, ?string $from, ?string $to) => new InviteWish(
        ['noor@lanternfield.example'],
        $role,
        'me',
        $from,
        $to,
    );
    expect(fn() => $wish(StaffRole::Substitute, null, null))
        ->toThrow(Refusal::class, 'first day')
        ->and(fn() => $wish(StaffRole::Substitute, '2026-09-05', '2026-09-05'))
        ->toThrow(Refusal::class)
        ->and(fn() => $wish(StaffRole::CoTeacher, '2026-09-05', '2026-09-09'))
        ->toThrow(Refusal::class, 'Only a substitute');
    $row = asked()->with(['role' => 'substitute', 'begins_on' => '2026-09-05', 'ends_on' => '2026-09-09']);
    $in = Invitations::accept(openSection(), $row, pupil('staff'), [], new Occasion($ids, '2026-09-01', NOW))
        ->changes[1]->after;
    expect([$in['role'], $in['begins_on'], $in['ends_on']])->toBe(['substitute', '2026-09-05', '2026-09-09']);
    expect(
        Invitations::accept(openSection(), $row, pupil('staff'), [], new Occasion($ids, '2026-09-07', NOW))->changes[1]
            ->after['begins_on'],
    )
        ->toBe('2026-09-07')
        ->and(
            fn() => Invitations::accept(openSection(), $row, pupil('staff'), [], new Occasion($ids, '2026-09-09', NOW)),
        )
        ->toThrow(Refusal::class, 'have passed');
});

it('takes one answer to an invitation, in time', function () use ($ids): void {
    $accept = fn(Record $invitation) => Invitations::accept(
        openSection(),
        $invitation,
        pupil('staff'),
        [],
        new Occasion($ids, '2026-09-01', NOW),
    );
    expect(array_map(fn(Change $c): string => $c->entity->value, $accept(asked())->changes))->toBe([
        'invitations',
        'enrollments',
    ]);
    foreach (['accepted', 'declined', 'withdrawn'] as $state) {
        expect(fn() => $accept(asked($state)))
            ->toThrow(Refusal::class)
            ->and(fn() => Invitations::decline(openSection(), asked($state), NOW))
            ->toThrow(Refusal::class)
            ->and(fn() => Invitations::withdraw(openSection(), asked($state), NOW))
            ->toThrow(Refusal::class);
    }
    expect(fn() => $accept(asked('invited', '2026-08-30 10:00:00')))
        ->toThrow(Refusal::class, 'expired')
        ->and(
            fn() => Invitations::accept(
                openSection(),
                asked(),
                pupil('student'),
                [],
                new Occasion($ids, '2026-09-01', NOW),
            ),
        )
        ->toThrow(Refusal::class, 'staff')
        ->and(
            fn() => Invitations::accept(
                openSection('archived'),
                asked(),
                pupil('staff'),
                [],
                new Occasion($ids, '2026-09-01', NOW),
            ),
        )
        ->toThrow(Refusal::class, 'archived');
    expect(
        Invitations::acceptNew(
            openSection(),
            asked(),
            new PersonName('Noor', 'Haddad'),
            'hash',
            new Occasion($ids, '2026-09-01', NOW),
        )->changes,
    )
        ->toHaveCount(4)
        ->and(Invitations::again(openSection(), asked(), token(), NOW)->changes[0]->after)
        ->toHaveKey('token_hash');
});
