<?php

declare(strict_types=1);

use Vantrel\Core\Guardians\Claimant;
use Vantrel\Core\Guardians\GuardianPolicy;
use Vantrel\Core\Guardians\Likeness;
use Vantrel\Core\Names\PersonName;

const LAYLAS = 'layla@shoremail.example';

$decide = fn(
    Claimant $who,
    array $record,
    GuardianPolicy $policy = GuardianPolicy::AtOnce,
    string $school = 'school',
) => (new Likeness())->decide($who, $school, $record, $policy);

it('connects nobody at another school by what a school has vouched for', function () use ($decide): void {
    $record = [recorded('Layla Haddad', ['email' => LAYLAS])];
    $vouched = comesAs('Layla Haddad', LAYLAS, by: 'school');
    $at = GuardianPolicy::AtOnce;
    expect($decide($vouched, $record, $at, 'school')->connects)
        ->toBeTrue()
        ->and($decide($vouched, $record, $at, 'another')->connects)
        ->toBeFalse()
        ->and($decide(comesAs('Layla Haddad', LAYLAS), $record, $at, 'another')->connects)
        ->toBeTrue();
});

it('connects whoever has shown that the address on record is theirs, by a like name', function (string $name) use (
    $decide,
): void {
    expect($decide(comesAs($name, LAYLAS), [recorded('Layla Haddad', ['email' => LAYLAS])])->connects)->toBeTrue();
})->with([
    'the very name' => 'Layla Haddad',
    'another spelling' => 'Leyla Haddad',
    'a name changed by marriage' => 'Layla Brandt',
    'a second given name' => 'Layla Noor Haddad',
    'swapped' => 'Haddad Layla',
    'an initial' => 'L Haddad',
]);

it('lets a person look where anything is amiss', function (Claimant $who, array $record) use ($decide): void {
    $decision = $decide($who, $record);
    expect($decision->connects)->toBeFalse()->and($decision->sends)->toBeFalse();
})->with([
    'an aunt of the same family' => fn() => [
        comesAs('Samira Haddad', 'samira@shoremail.example'),
        [recorded('Layla Haddad', ['email' => LAYLAS])],
    ],
    'somebody of the same name at another address' => fn() => [
        comesAs('Layla Haddad', 'other@shoremail.example'),
        [recorded('Layla Haddad', ['email' => LAYLAS])],
    ],
    'the address, not confirmed, from an account' => fn() => [
        comesAs('Layla Haddad', LAYLAS, null, false),
        [recorded('Layla Haddad', ['email' => LAYLAS])],
    ],
    'the address of the household, another first name' => fn() => [
        comesAs('Karim Haddad', LAYLAS),
        [recorded('Layla Haddad', ['email' => LAYLAS])],
    ],
    'restricted' => fn() => [
        comesAs('Layla Haddad', LAYLAS),
        [recorded('Layla Haddad', ['email' => LAYLAS], 'listed', 'court order')],
    ],
    'restricted, now with another address' => fn() => [
        comesAs('Layla Haddad', 'new@shoremail.example'),
        [
            recorded('Layla Haddad', ['email' => LAYLAS], 'listed', 'court order'),
            recorded('Layla Haddad', ['email' => 'new@shoremail.example'], 'listed', null, 'second'),
        ],
    ],
    'ended' => fn() => [comesAs('Layla Haddad', LAYLAS), [recorded('Layla Haddad', ['email' => LAYLAS], 'ended')]],
    'said no' => fn() => [comesAs('Layla Haddad', LAYLAS), [recorded('Layla Haddad', ['email' => LAYLAS], 'refused')]],
    'two of that name and address' => fn() => [
        comesAs('Layla Haddad', LAYLAS),
        [
            recorded('Layla Haddad', ['email' => LAYLAS]),
            recorded('Leyla Haddad', ['email' => LAYLAS], 'listed', null, 'second'),
        ],
    ],
    'a number nobody has confirmed' => fn() => [
        comesAs('Layla Haddad', 'x@shoremail.example', '+12025550111'),
        [recorded('Layla Haddad', ['phone' => '+12025550111'])],
    ],
    'nobody on record' => fn() => [comesAs('Layla Haddad', LAYLAS), []],
    'no address at all, and none on record' => fn() => [
        comesAs('Layla Haddad', ''),
        [recorded('Layla Haddad', ['email' => ''])],
    ],
]);

it('tells two parents with one address apart by their names', function () use ($decide): void {
    $record = [
        recorded('Layla Haddad', ['email' => LAYLAS]),
        recorded('Karim Haddad', ['email' => LAYLAS], 'listed', null, 'karim'),
    ];
    expect($decide(comesAs('Karim Haddad', LAYLAS), $record)->whom?->person->id)->toBe('karim');
    // One of them kept away: the mailbox they share shows nothing.
    $record[0] = recorded('Layla Haddad', ['email' => LAYLAS], 'listed', 'court order');
    expect($decide(comesAs('Karim Haddad', LAYLAS), $record)->connects)->toBeFalse();
});

it('connects by a number that has answered', function () use ($decide): void {
    $person = grownUp('account', 'Layla Haddad', ['phone' => '+12025550111', 'phone_confirmed' => '+12025550111']);
    $who = new Claimant(new PersonName('Layla', 'Haddad'), '', '+12025550111', $person);
    expect($decide($who, [recorded('Layla Haddad', ['phone' => '+12025550111'])])->connects)
        ->toBeTrue()
        ->and($decide($who, [recorded('Layla Haddad', ['phone' => '+12025550199'])])->connects)
        ->toBeFalse();
});

it('sends a link to whoever types the address on record, and connects nobody by it', function () use ($decide): void {
    $who = new Claimant(new PersonName('Layla', 'Haddad'), LAYLAS);
    $decision = $decide($who, [recorded('Layla Haddad', ['email' => LAYLAS])]);
    expect([$decision->connects, $decision->sends])->toBe([false, true]);
});

it('leaves all to a person where the school wants it so', function () use ($decide): void {
    $decision = $decide(
        comesAs('Layla Haddad', LAYLAS),
        [recorded('Layla Haddad', ['email' => LAYLAS])],
        GuardianPolicy::Check,
    );
    expect($decision->connects)->toBeFalse()->and($decision->whom?->person->id)->toBe('guardian');
});

it('says what is the same and what is not', function (): void {
    $likeness = new Likeness();
    $who = new Claimant(new PersonName('Layla', 'Haddad'), LAYLAS, '+12025550111');
    $known = new Claimant(new PersonName('Layla', 'Haddad'), 'old@shoremail.example', null);
    expect($likeness->alike($who, $known))
        ->toBe(['name'])
        ->and($likeness->unlike($who, $known))
        ->toBe(['address']);
});
