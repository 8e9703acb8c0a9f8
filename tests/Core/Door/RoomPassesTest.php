<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\Reserves;
use Vantrel\Core\Door\RoomPasses;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\RoomPass;
use Vantrel\Core\Records\School;

$ids = new Ids('01K3CNQ0000000000000000000');
$token = Token::draw(new KeyedStream(str_repeat('k', 32), 'token'));

it('opens the room pass in its hours, until its end, while the section is open', function (
    array $pass,
    string $clock,
    string $section,
    ?string $why,
): void {
    $row = new RoomPass('p', 1, ['state' => 'live', 'hours' => 'school', 'ends_at' => null, ...$pass]);
    $shut = RoomPasses::shut(
        $row,
        heron($section),
        new School('school', 1, ['day_opens' => '07:30', 'day_closes' => '16:00']),
        AT,
        $clock,
    );
    $why === null ? expect($shut)->toBeNull() : expect($shut?->getMessage())->toContain($why);
})->with([
    [[], '07:30', 'open', null],
    [[], '07:29', 'open', 'from 07:30 to 16:00'],
    [[], '15:59', 'open', null],
    [[], '16:00', 'open', 'works from'],
    [['hours' => 'any'], '23:00', 'open', null],
    [['state' => 'ended'], '10:00', 'open', 'not work any more'],
    [[], '10:00', 'archived', 'not work any more'],
    [['ends_at' => AT], '10:00', 'open', 'has ended'],
    [['ends_at' => '2026-09-01 10:00:01'], '10:00', 'open', null],
]);

it('makes one room pass at a time', function () use ($ids, $token): void {
    $live = new RoomPass('p', 1, ['state' => 'live']);
    expect(tables(RoomPasses::make(heron(), [$live], $token, true, true, null, $ids, AT)))
        ->toBe(['room_passes', 'room_passes'])
        ->and(RoomPasses::make(heron(), [], $token, true, true, null, $ids, AT)->changes[0]->after['token_hash'])
        ->toBe($token->hash())
        ->and(fn() => RoomPasses::make(heron(), [], $token, true, false, AT, $ids, AT))
        ->toThrow(Refusal::class)
        ->and(fn() => RoomPasses::end(heron(), [], AT))
        ->toThrow(Refusal::class, 'no room pass');
});

it('makes reserve accounts with the numbers that are free, and gives each its owner once', function () use (
    $ids,
): void {
    $plan = Reserves::make(
        heron(),
        2,
        [new Person('r', 1, ['family_name' => '1'])],
        new UserNames([], []),
        $ids,
        '2026-09-01',
    );
    expect(
        array_map(
            fn(Change $c): string => $c->entity->value .
                ' ' .
                ($c->after['family_name'] ?? ($c->after['user_name'] ?? $c->after['source'])),
            $plan->changes,
        ),
    )->toBe([
        'people 2',
        'sign_ins reserve.3heron',
        'enrollments reserve',
        'people 3',
        'sign_ins reserve.3heron2',
        'enrollments reserve',
    ]);
    expect(fn() => Reserves::make(heron(), 21, [], new UserNames([], []), $ids, '2026-09-01'))->toThrow(
        Refusal::class,
        '1 to 20',
    );
    $blank = new Person('p', 1, [
        'given_name' => 'Reserve',
        'family_name' => '2',
        'search_name' => 'reserve 2',
        'birth_date' => null,
        'number' => null,
        'state' => 'reserve',
    ]);
    expect(Reserves::claim($blank, new PersonName('Uma', 'Rao'), null, '020900')->changes[0]->after)
        ->toBe([
            'given_name' => 'Uma',
            'family_name' => 'Rao',
            'search_name' => 'uma rao',
            'number' => '020900',
            'state' => 'active',
        ])
        ->and(fn() => Reserves::claim(child(), new PersonName('Uma', 'Rao'), null, null))
        ->toThrow(Refusal::class, 'belongs to Noor Haddad');
});
