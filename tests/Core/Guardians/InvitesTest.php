<?php

declare(strict_types=1);

use Vantrel\Core\Guardians\GuardianPolicy;
use Vantrel\Core\Guardians\Invites;
use Vantrel\Core\Guardians\NotInvited;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Planned;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Entity;

const INVITED_AT = '2026-09-10 10:00:00';

$child = fn(string $id, string $state = 'active') => grownUp($id, "Noor$id Haddad", [
    'kind' => 'student',
    'state' => $state,
]);
$mother = fn(string $id = 'ann', array $more = []) => grownUp($id, 'Layla Haddad', [
    'email' => "$id@shoremail.example",
    ...$more,
]);
$plan = fn(array $links, array $people, array $open = []): Planned => Invites::plan(
    'school',
    $links,
    array_combine(array_map(fn($p) => $p->id, $people), $people),
    $open,
    ['back@shoremail.example' => 'No such mailbox.'],
    fn(string $id): string => "hash of $id",
    'coordinator',
    new Ids('01J00000000000000000000000'),
    INVITED_AT,
);
$of = fn(Plan $plan, Entity $entity): array => array_values(
    array_filter($plan->changes, fn(Change $c): bool => $c->entity === $entity),
);

it('sends one link for all children of a guardian', function () use ($plan, $child, $mother, $of): void {
    $planned = $plan(
        [tie('t1', 'a', 'ann'), tie('t2', 'b', 'ann'), tie('t3', 'a', 'bo')],
        [$child('a'), $child('b'), $mother(), $mother('bo')],
    );
    $sent = $of($planned->plan, Entity::GuardianInvitation);
    expect($planned->result->invitations)
        ->toHaveCount(2)
        ->and($planned->result->children)
        ->toBe(3)
        ->and(array_map(fn(Change $c) => $c->after['email'], $sent))
        ->toBe(['ann@shoremail.example', 'bo@shoremail.example'])
        ->and($sent[0]->after['expires_at'])
        ->toBe('2026-10-08 10:00:00')
        ->and($sent[0]->after['token_hash'])
        ->toBe("hash of {$sent[0]->id}")
        ->and($of($planned->plan, Entity::Guardianship)[0]->after)
        ->toBe(['state' => 'invited', 'state_at' => INVITED_AT, 'state_by' => 'coordinator']);
});

it('sends nothing to whom nothing may be sent, and says why', function () use ($plan, $child, $mother): void {
    $planned = $plan(
        [
            tie('t1', 'a', 'ann', 'listed', 'court order'),
            tie('t2', 'b', 'ann', 'connected'),
            tie('t3', 'c', 'bo'),
            tie('t4', 'a', 'cy', 'refused'),
            tie('t5', 'a', 'di', 'ended'),
            tie('t6', 'a', 'ed'),
            tie('t7', 'a', 'flo', 'invited'),
            tie('t8', 'a', 'back'),
        ],
        [
            $mother('back'),
            $child('a'),
            $child('b'),
            $child('c', 'left'),
            $mother(),
            $mother('bo'),
            $mother('cy'),
            $mother('di'),
            $mother('ed', ['email' => null]),
            $mother('flo'),
        ],
        [invitation('flo')],
    );
    expect($planned->result->invitations)
        ->toBe([])
        ->and($planned->plan->isEmpty())
        ->toBeTrue()
        ->and(array_sum($planned->result->not))
        ->toBe(8)
        ->and(array_keys($planned->result->not))
        ->toEqualCanonicalizing(array_map(fn(NotInvited $n) => $n->value, NotInvited::cases()))
        ->and($planned->result->leftOut())
        ->toContain('1 has restricted contact')
        ->toContain('1 has no mail address');
});

it('sends another link where the old one went to another address or is over', function (array $old) use (
    $plan,
    $child,
    $mother,
    $of,
): void {
    $planned = $plan([tie('t1', 'a', 'ann', 'invited')], [$child('a'), $mother()], [invitation('ann', $old)]);
    $changes = $of($planned->plan, Entity::GuardianInvitation);
    expect($planned->result->invitations)
        ->toHaveCount(1)
        ->and($changes[0]->after)
        ->toMatchArray(['state' => 'ended'])
        ->and($changes[1]->inserts())
        ->toBeTrue();
})->with([[['email' => 'before@shoremail.example']], [['expires_at' => '2026-09-09 10:00:00']]]);

it('connects whoever follows the link, once', function () use ($child, $mother, $of): void {
    $at = new Occasion(new Ids('01J00000000000000000000000'), '2026-09-10', INVITED_AT);
    $accept = fn(
        array $links,
        array $more = [],
        GuardianPolicy $policy = GuardianPolicy::AtOnce,
        bool $taken = false,
    ) => Invites::accept(
        invitation('ann', $more),
        $links,
        ['a' => $child('a'), 'b' => $child('b'), 'c' => $child('c')],
        $mother(),
        $mother(),
        [],
        [],
        $taken,
        'hash of a password',
        $policy,
        $at,
    );
    $links = [tie('t1', 'a', 'ann', 'invited'), tie('t2', 'b', 'ann', 'invited', 'court order'), tie('t3', 'c', 'ann')];
    $made = $accept($links);
    expect($of($made, Entity::Guardianship))
        ->toHaveCount(1)
        ->and($of($made, Entity::Guardianship)[0]->id)
        ->toBe('t1')
        ->and($of($made, Entity::SignIn)[0]->after)
        ->toMatchArray(['user_name' => 'ann@shoremail.example', 'password' => 'hash of a password'])
        ->and($of($made, Entity::Person)[0]->after['email_state'])
        ->toBe('confirmed');
    // Where a person of the school looks first, nothing is connected.
    $waits = $accept($links, [], GuardianPolicy::Check);
    expect($of($waits, Entity::Guardianship))
        ->toBe([])
        ->and($of($waits, Entity::GuardianClaim)[0]->after)
        ->toMatchArray(['student_id' => 'a', 'suggested_id' => 'ann', 'state' => 'waiting']);
    expect(fn() => $accept($links, [], GuardianPolicy::AtOnce, true))->toThrow(
        Refusal::class,
        'account with this address',
    );
    foreach (
        [['state' => 'used'], ['state' => 'ended'], ['expires_at' => INVITED_AT], ['email' => 'old@shoremail.example']]
        as $no
    ) {
        expect(fn() => $accept($links, $no))->toThrow(Refusal::class, 'does not work');
    }
    expect(fn() => $accept([tie('t1', 'a', 'ann')]))->toThrow(Refusal::class, 'does not work');
});

it('moves the tie to the account of a teacher who is the guardian', function () use ($child, $mother, $of): void {
    $at = new Occasion(new Ids('01J00000000000000000000000'), '2026-09-10', INVITED_AT);
    $accept = fn(array $account) => Invites::accept(
        invitation('ann'),
        [tie('t1', 'a', 'ann', 'invited')],
        ['a' => $child('a')],
        $mother(),
        grownUp('teacher', 'Layla Haddad', ['kind' => 'staff', ...$account]),
        [],
        [],
        true,
        null,
        GuardianPolicy::AtOnce,
        $at,
    );
    $plan = $accept(['email' => 'ann@shoremail.example', 'email_state' => 'confirmed']);
    expect($of($plan, Entity::Guardianship)[0]->after)
        ->toMatchArray(['guardian_id' => 'teacher', 'state' => 'connected'])
        ->and($of($plan, Entity::SignIn))
        ->toBe([]);
    expect(fn() => $accept(['email' => 'ann@shoremail.example']))->toThrow(Refusal::class, 'another address');
    expect(fn() => $accept(['email' => 'x@shoremail.example', 'email_state' => 'confirmed']))->toThrow(Refusal::class);
});

it('takes a no for an answer', function () use ($child, $mother, $of): void {
    $plan = Invites::decline(
        invitation('ann'),
        [tie('t1', 'a', 'ann', 'invited')],
        ['a' => $child('a')],
        $mother(),
        INVITED_AT,
    );
    expect($of($plan, Entity::Guardianship)[0]->after)
        ->toMatchArray(['state' => 'refused', 'state_by' => 'ann'])
        ->and($of($plan, Entity::GuardianInvitation)[0]->after['state'])
        ->toBe('used');
});

it('withdraws, and reminds those whose link works', function () use ($mother, $of): void {
    $plan = Invites::withdraw(
        invitation('ann'),
        $mother(),
        [tie('t1', 'a', 'ann', 'invited'), tie('t2', 'b', 'ann', 'connected')],
        'me',
        INVITED_AT,
    );
    expect($of($plan, Entity::Guardianship))
        ->toHaveCount(1)
        ->and($of($plan, Entity::Guardianship)[0]->after['state'])
        ->toBe('listed');
    expect(fn() => Invites::withdraw(invitation('ann', ['state' => 'used']), $mother(), [], 'me', INVITED_AT))->toThrow(
        Refusal::class,
    );
    $reminded = Invites::remind(
        [invitation('ann'), invitation('bo', ['state' => 'used']), invitation('cy', ['expires_at' => INVITED_AT])],
        INVITED_AT,
    );
    expect($reminded->changes)
        ->toHaveCount(1)
        ->and($reminded->sentence)
        ->toBe('Reminds 1 guardian who has not answered.');
});
