<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\Address;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\Invitee;
use Vantrel\Core\Door\Invitees;
use Vantrel\Core\Door\KnownGuardian;
use Vantrel\Core\Door\KnownStudent;
use Vantrel\Core\Door\StudentInvites;
use Vantrel\Core\Door\StudentInviteStanding;
use Vantrel\Core\Mailroom\MessageState;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\RequestState;
use Vantrel\Core\Records\StudentInvitation;
use Vantrel\Core\Records\StudentInvitationState;

function knownGuardian(string $id, ?string $email, string $state = 'listed', bool $away = false): KnownGuardian
{
    return new KnownGuardian($id, $email, null, GuardianshipState::from($state), $away);
}

/** @param  list<KnownGuardian>  $guardians */
function knownStudent(
    string $id,
    ?string $email,
    array $guardians = [],
    bool $in = false,
    ?string $language = null,
): KnownStudent {
    return new KnownStudent($id, ucfirst($id), $email, ["n-$id", "$id.moss"], $language, $in, $guardians);
}

/**
 * @param  list<KnownStudent>  $known
 * @param  list<array{string, string|null}>  $open
 * @return array{list<string>, list<string>} to whom and for whom, and what is said of the others
 */
function whomFrom(string $who, bool $family, array $known, array $open = []): array
{
    $of = Invitees::of(Invitees::lines($who), $family, 'vi', $known, $open);

    return [
        array_map(fn(Invitee $i): string => "$i->email $i->studentId $i->guardianId $i->language", $of->invited),
        array_map(fn(array $l): string => implode(' ', $l), $of->leftOut),
    ];
}

/** @param  array<string, string|null>  $more */
function mailed(array $more = []): StudentInvitation
{
    return new StudentInvitation('inv', 1, [
        'section_id' => 'sec',
        'person_id' => 'noor',
        'guardian_id' => null,
        'join_request_id' => null,
        'email' => 'noor@lanternfield.example',
        'typed' => '020417',
        'reader' => 'student',
        'language' => 'en',
        'state' => 'invited',
        'sent_at' => '2026-08-25 10:00:00',
        'expires_at' => '2026-09-08 10:00:00',
        'answered_at' => null,
        ...$more,
    ]);
}

function noorAs(string $state = 'active', string $school = 'school'): Person
{
    return new Person('noor', 1, [...child($state)->values, 'school_id' => $school]);
}

$at = new Occasion(new Ids('01K3CNQ0000000000000000000'), '2026-09-01', AT);

it('reads a paste, each once', function (): void {
    expect(Invitees::lines("a@x.example, b@x.example\r\n\n a@x.example;\tMoss <c@x.example>"))->toBe([
        'a@x.example',
        'b@x.example',
        'Moss <c@x.example>',
    ]);
    expect(Invitees::lines("\"Moss, Ada\" <a@x.example>, \"b@x.example\n0204"))->toBe([
        '"Moss, Ada" <a@x.example>',
        '"b@x.example',
        '0204',
    ]);
    expect(fn() => whomFrom(" \n,", false, []))->toThrow(Refusal::class, 'at least one');
    expect(
        fn() => whomFrom(
            implode(',', array_map(fn(int $i): string => "a$i@x.example", range(0, Invitees::MOST))),
            false,
            [],
        ),
    )->toThrow(Refusal::class, 'At most 200');
});

it('writes to students at the address that is theirs, and to nobody else’s', function (): void {
    $known = [
        knownStudent('ada', 'ada@school.example', [knownGuardian('g1', 'mum@home.example')], language: 'es'),
        knownStudent('kit', null, [
            knownGuardian('g1', 'mum@home.example'),
            knownGuardian('g2', 'dad@home.example', away: true),
        ]),
        knownStudent('lou', 'lou@school.example', in: true),
        knownStudent('max', 'twins@home.example'),
        knownStudent('mia', 'twins@home.example'),
    ];
    [$to, $not] = whomFrom(
        'ADA@school.example, n-ADA, N-kit, lou.moss, twins@home.example, mum@home.example, dad@home.example, ' .
            'new@away.example, nobody, max.moss, n-mia',
        false,
        $known,
    );
    expect($to)->toBe([
        'ada@school.example ada  es',
        'new@away.example   vi',
        // One mailbox of two: each is named by what is theirs alone.
        'twins@home.example max  vi',
        'twins@home.example mia  vi',
    ]);
    expect($not)->toBe([
        'n-ADA has been invited already, and can be sent to again below.',
        'N-kit has no address that is known to be theirs.',
        'lou.moss is in the section already.',
        'twins@home.example is of several students. Type the number or user name of the one you mean.',
        'mum@home.example is a guardian’s. Write to the family, or type the student’s number or user name.',
        'dad@home.example is not written to. Ask the office.',
        'nobody is no address, and no student’s number or user name.',
    ]);
});

it('writes to families that may hear of the child, and says nothing of those who may not', function (): void {
    $known = [
        knownStudent('ada', 'ada@school.example', [
            knownGuardian('g1', 'mum@home.example', 'connected'),
            knownGuardian('g2', 'dad@home.example', 'invited', true),
            knownGuardian('g3', 'aunt@home.example', 'refused'),
            knownGuardian('g4', null),
            knownGuardian('g5', 'gran@home.example'),
        ]),
        knownStudent('kit', null, [
            knownGuardian('g1', 'mum@home.example'),
            knownGuardian('g3', 'aunt@home.example', 'ended'),
        ]),
        knownStudent('lou', null, [knownGuardian('g6', 'away@home.example', away: true)]),
    ];
    [$to, $not] = whomFrom(
        'n-ada, mum@home.example, dad@home.example, aunt@home.example, ada@school.example, lou.moss, new@home.example',
        true,
        $known,
    );
    expect($to)->toBe([
        'mum@home.example ada g1 vi',
        'gran@home.example ada g5 vi',
        // Whoever the school no longer counts as a guardian is a stranger, and brings a child it asks about.
        'aunt@home.example   vi',
        'new@home.example   vi',
    ]);
    expect($not)->toBe([
        'mum@home.example is of several children. Type the number or user name of the one you mean.',
        'dad@home.example is not written to. Ask the office.',
        'ada@school.example is a student’s own. Invite students, or type the number or user name.',
        'lou.moss has no guardian on record who can be written to.',
    ]);
});

it('sends nobody a second link while the first waits, and the other guardian theirs', function (): void {
    $known = [
        knownStudent('ada', 'ada@school.example', [
            knownGuardian('g1', 'mum@home.example'),
            knownGuardian('g5', 'gran@home.example'),
        ]),
    ];
    expect(whomFrom('n-ada', true, $known, [['mum@home.example', 'ada']]))->toBe([['gran@home.example ada g5 vi'], []]);
    expect(whomFrom('x@y.example', false, [], [['x@y.example', null]])[0])->toBe([]);
});

it('gives each a link of their own, kept as a hash', function () use ($at): void {
    $invitees = Invitees::of(['a@x.example', 'b@x.example'], false, 'en', [], [])->invited;
    $planned = StudentInvites::invite(
        heron(),
        $invitees,
        'petra',
        0,
        new KeyedStream(str_repeat('k', 32), 'links'),
        $at,
    );
    $hashes = array_map(fn($c) => $c->after['token_hash'], $planned->plan->changes);
    expect(array_unique($hashes))
        ->toHaveCount(2)
        ->and(array_map(fn(Token $t): string => $t->hash(), array_values($planned->result)))
        ->toBe($hashes)
        ->and($planned->plan->sentence)
        ->toBe('Sends 2 links into 3 Heron.')
        ->and($planned->plan->changes[0]->after['expires_at'])
        ->toBe('2026-09-15 10:00:00');
    $invite = fn(string $state, array $who, int $sent): mixed => StudentInvites::invite(
        heron($state),
        $who,
        'petra',
        $sent,
        new KeyedStream(str_repeat('k', 32), 'links'),
        $at,
    );
    expect(fn() => $invite('archived', $invitees, 0))
        ->toThrow(Refusal::class, 'archived')
        ->and(fn() => $invite('open', $invitees, 999))
        ->toThrow(Refusal::class, '1,000 links a day')
        ->and(fn() => $invite('open', [], 0))
        ->toThrow(Refusal::class, 'None of these');
});

it('brings the student in, once, and nobody whose place is elsewhere', function () use ($at): void {
    $accept = fn(StudentInvitation $i, ?Person $who = null, array $in = [], ?Guardianship $tie = null): array => tables(
        StudentInvites::accept(heron(), $i, $who ?? noorAs(), $in, $tie, $at),
    );
    expect($accept(mailed()))->toBe(['student_invitations', 'enrollments']);
    $is = new Enrollment('e', 1, ['section_id' => 'sec', 'begins_on' => '2026-08-20', 'ends_on' => null]);
    expect($accept(mailed(), null, [$is]))->toBe(['student_invitations']);
    foreach (['asked', 'came', 'declined', 'withdrawn'] as $state) {
        expect(fn() => $accept(mailed(['state' => $state])))->toThrow(Refusal::class);
    }
    expect(fn() => $accept(mailed(['expires_at' => AT])))
        ->toThrow(Refusal::class, 'too old')
        ->and(fn() => $accept(mailed(), noorAs('left')))
        ->toThrow(Refusal::class, 'not in use')
        ->and(fn() => $accept(mailed(), noorAs(school: 'other')))
        ->toThrow(Refusal::class, 'another school');
    // A guardian’s link is theirs only while they may hear of the child.
    $family = mailed(['guardian_id' => 'layla', 'reader' => 'family']);
    expect($accept($family, null, [], tie('t', 'noor', 'layla')))->toContain('enrollments');
    foreach (
        [null, tie('t', 'noor', 'layla', 'ended'), tie('t', 'noor', 'layla', 'connected', 'By court order')]
        as $tie
    ) {
        expect(fn() => $accept($family, null, [], $tie))->toThrow(Refusal::class, 'does not work');
    }
});

it('lets a newcomer in at once only at an address of the school, with nobody like them on the Roll', function (): void {
    $atOnce = fn(
        array $more = [],
        bool $alike = false,
        ?string $born = '2010-05-04',
    ): bool => StudentInvites::comesInAtOnce(
        mailed(['person_id' => null, ...$more]),
        newcomer($born),
        school(),
        $alike,
        '2026-09-01',
    );
    expect($atOnce())
        ->toBeTrue()
        ->and($atOnce([], true))
        ->toBeFalse()
        ->and($atOnce(['email' => 'noor@home.example']))
        ->toBeFalse()
        ->and($atOnce(['reader' => 'family']))
        ->toBeFalse()
        ->and($atOnce([], false, '2018-01-01'))
        ->toBeFalse();
});

it('asks at the door with what the school asks, and never takes a parent’s address for the child’s', function () use (
    $at,
): void {
    $ask = fn(array $more = [], string $under13 = 'allow') => StudentInvites::ask(
        heron(),
        mailed(['person_id' => null, ...$more]),
        newcomer('2018-01-01'),
        school('birth_date', $under13),
        $at,
    )->plan->changes;
    [$request, $invitation] = $ask();
    expect($request->after['cause'])
        ->toBe('invited')
        ->and($request->after['email'])
        ->toBe('noor@lanternfield.example')
        ->and($invitation->after['state'])
        ->toBe('asked')
        ->and($invitation->after['join_request_id'])
        ->toBe($request->id)
        ->and($ask(['reader' => 'family'])[0]->after['email'])
        ->toBeNull();
    expect(fn() => $ask([], 'listed'))->toThrow(Refusal::class, 'under 13');
});

it('says what has become of each', function (): void {
    $at = fn(
        string $state,
        ?string $request = null,
        bool $in = false,
        bool $opened = false,
        ?MessageState $mail = null,
        string $now = AT,
    ): string => StudentInviteStanding::at(
        StudentInvitationState::from($state),
        $request === null ? null : RequestState::from($request),
        $in,
        $opened,
        $mail,
        '2026-09-08 10:00:00',
        $now,
    )->value;
    expect($at('invited'))
        ->toBe('sent')
        ->and($at('invited', mail: MessageState::Waiting))
        ->toBe('waiting')
        ->and($at('invited', mail: MessageState::Bounced))
        ->toBe('not_there')
        ->and($at('invited', mail: MessageState::Stopped))
        ->toBe('not_there')
        ->and($at('invited', opened: true, mail: MessageState::Bounced))
        ->toBe('opened')
        ->and($at('invited', opened: true, now: '2026-09-08 10:00:00'))
        ->toBe('expired')
        ->and($at('invited', in: true, now: '2027-01-01 00:00:00'))
        ->toBe('came')
        ->and($at('asked', 'waiting'))
        ->toBe('asked')
        ->and($at('asked', 'approved'))
        ->toBe('came')
        ->and($at('asked', 'refused'))
        ->toBe('turned_away')
        ->and($at('declined'))
        ->toBe('declined')
        ->and($at('withdrawn'))
        ->toBe('withdrawn');
    $open = array_filter(StudentInviteStanding::cases(), fn(StudentInviteStanding $s): bool => $s->isOpen());
    expect(array_column($open, 'value'))->toBe(['waiting', 'sent', 'not_there', 'opened', 'expired']);
    // To a teacher, whoever has not shown themselves has no name.
    $named = array_filter(StudentInviteStanding::cases(), fn(StudentInviteStanding $s): bool => $s->namesWhom());
    expect(array_column($named, 'value'))->toBe(['asked', 'came', 'turned_away']);
});

it('writes to no address that somebody only typed at the door', function (): void {
    expect(Address::isTheirs(AddressState::Claimed, AddressSource::Door))
        ->toBeFalse()
        ->and(Address::isTheirs(AddressState::Confirmed, AddressSource::Door))
        ->toBeTrue()
        ->and(Address::isTheirs(AddressState::Claimed, AddressSource::Listed))
        ->toBeTrue()
        ->and(Address::isTheirs(AddressState::Claimed, null))
        ->toBeTrue();
});
