<?php

declare(strict_types=1);

use Vantrel\Core\Guardians\ConsentWay;
use Vantrel\Core\Guardians\OwnContact;
use Vantrel\Core\Guardians\Ties;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Entity;

const TIED_AT = '2026-09-10 10:00:00';

$mother = fn() => grownUp('ann', 'Layla Haddad', ['email' => 'ann@shoremail.example']);
$child = fn() => grownUp('a', 'Noor Haddad', ['kind' => 'student']);

it('ends a connection and the link that would make it again', function () use ($mother, $child): void {
    $plan = Ties::disconnect(
        tie('t', 'a', 'ann', 'connected'),
        $mother(),
        $child(),
        [invitation('ann')],
        false,
        'me',
        TIED_AT,
    );
    expect(array_map(fn($c) => [$c->entity, $c->after['state']], $plan->changes))->toBe([
        [Entity::Guardianship, 'ended'],
        [Entity::GuardianInvitation, 'ended'],
    ]);
    // Other children are invited with the same link: it goes on working for them.
    expect(
        Ties::disconnect(
            tie('t', 'a', 'ann', 'connected'),
            $mother(),
            $child(),
            [invitation('ann')],
            true,
            'me',
            TIED_AT,
        )->changes,
    )->toHaveCount(1);
    expect(
        fn() => Ties::disconnect(tie('t', 'a', 'ann', 'ended'), $mother(), $child(), [], false, 'me', TIED_AT),
    )->toThrow(Refusal::class);
    $left = Ties::disconnect(tie('t', 'a', 'ann', 'connected'), $mother(), $child(), [], false, null, TIED_AT);
    expect($left->sentence)
        ->toBe('Layla Haddad leaves Noor Haddad.')
        ->and($left->changes[0]->after['state_by'])
        ->toBe('ann');
});

it('keeps away with a reason', function (string $before, ?string $after) use ($mother, $child): void {
    $plan = Ties::restrict(
        tie('t', 'a', 'ann', $before),
        $mother(),
        $child(),
        ' court order ',
        [invitation('ann')],
        false,
        'me',
        TIED_AT,
    );
    expect($plan->changes[0]->after['restriction'])
        ->toBe('court order')
        ->and($plan->changes[0]->after['state'] ?? null)
        ->toBe($after)
        ->and($plan->changes)
        ->toHaveCount(2)
        // Why is for those who may know; the title stands in lists.
        ->and($plan->title . $plan->sentence)
        ->not->toContain('court');
    expect(fn() => Ties::restrict(tie('t', 'a', 'ann'), $mother(), $child(), ' ', [], false, 'me', TIED_AT))->toThrow(
        Refusal::class,
    );
})->with([['connected', 'ended'], ['invited', 'listed'], ['listed', null], ['ended', null]]);

it('lifts what is there to lift', function () use ($mother, $child): void {
    expect(Ties::lift(tie('t', 'a', 'ann', 'ended', 'court order'), $mother(), $child())->changes[0]->after)->toBe([
        'restriction' => null,
    ]);
    expect(fn() => Ties::lift(tie('t', 'a', 'ann'), $mother(), $child()))->toThrow(Refusal::class);
});

it('keeps a consent with its day and way', function () use ($mother, $child): void {
    $keep = fn(string $on, ?string $restriction = null) => Ties::consent(
        tie('t', 'a', 'ann', 'listed', $restriction),
        $mother(),
        $child(),
        ConsentWay::Form,
        $on,
        '2026-09-10',
    );
    expect($keep('2026-09-09')->changes[0]->after)->toBe(['consent_on' => '2026-09-09', 'consent_way' => 'form']);
    expect(fn() => $keep('2026-09-11'))->toThrow(Refusal::class, 'not come yet');
    expect(fn() => $keep('2026-09-09', 'court order'))->toThrow(Refusal::class, 'restricted');
});

it('makes one of two ties to the same child, and keeps whoever is kept away away', function (
    array $stays,
    array $goes,
    array $made,
): void {
    expect(Ties::united(tie('t', 'a', 'ann', ...$stays), tie('u', 'a', 'bo', ...$goes)))->toBe($made);
})->with([
    [['listed'], ['connected'], ['state' => 'connected']],
    [['connected'], ['listed'], []],
    [['connected'], ['listed', 'court order'], ['state' => 'ended', 'restriction' => 'court order']],
    [['listed', 'court order'], ['connected'], []],
    [['ended'], ['invited'], ['state' => 'invited']],
    [['listed'], ['connected', 'court order'], ['restriction' => 'court order']],
]);

it('asks the old address and number only where they have answered once', function (): void {
    $person = grownUp('ann', 'Layla Haddad', [
        'email' => 'ann@shoremail.example',
        'email_state' => 'confirmed',
        'phone' => '+12025550111',
        'phone_confirmed' => '+12025550100',
    ]);
    expect(OwnContact::old($person, 'email'))
        ->toBe('ann@shoremail.example')
        ->and(OwnContact::old($person, 'phone'))
        ->toBeNull()
        ->and(OwnContact::change($person, 'phone', '+12025550122', TIED_AT)->changes[0]->after)
        ->toBe(['phone' => '+12025550122', 'phone_confirmed' => '+12025550122'])
        ->and(OwnContact::change($person, 'email', 'new@shoremail.example', TIED_AT)->changes[0]->after)
        ->toMatchArray(['email' => 'new@shoremail.example', 'email_by' => 'mail']);
});
