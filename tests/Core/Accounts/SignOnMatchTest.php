<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\Credentials;
use Vantrel\Core\Accounts\SignOnMatch;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Identity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SignIn;

function somebody(string $id, array $otherwise = []): Person
{
    return new Person($id, 1, [
        'kind' => 'staff',
        'state' => 'active',
        'email' => 'ines@lanternfield.example',
        'email_state' => 'confirmed',
        'email_by' => 'school',
        ...$otherwise,
    ]);
}

function known(string $person, string $state = 'live'): Identity
{
    return new Identity("i-$person", 1, ['person_id' => $person, 'state' => $state]);
}

it('goes by the provider’s own name, whoever has the address by now', function (): void {
    expect(SignOnMatch::personId(known('ines'), [somebody('another')], []))
        ->toBe('ines')
        ->and(fn() => SignOnMatch::personId(known('ines', 'ended'), [somebody('ines')], []))
        ->toThrow(Refusal::class, 'was ended here');
});

it('goes by an address the first time, where it is confirmed and nobody else’s', function (): void {
    expect(SignOnMatch::personId(null, [somebody('ines')], []))
        ->toBe('ines')
        // An identity that has ended is no other sign-on.
        ->and(SignOnMatch::personId(null, [somebody('ines')], [known('ines', 'ended')]))
        ->toBe('ines');
});

it('takes whose owner has shown the address before whom a school says it belongs to', function (string $by): void {
    $shown = somebody('ines', ['email_by' => $by]);
    expect(SignOnMatch::personId(null, [somebody('given-away'), $shown], []))->toBe('ines');
    expect(fn() => SignOnMatch::personId(null, [somebody('ivo', ['email_by' => $by]), $shown], []))->toThrow(
        Refusal::class,
    );
})->with(['mail', 'sign_on']);

it('opens no account by an address that shows nothing', function (array $people): void {
    expect(fn() => SignOnMatch::personId(null, $people, []))->toThrow(Refusal::class, 'no account here');
})->with([
    'nobody has it' => [[]],
    'only claimed' => [[somebody('ines', ['email_state' => 'claimed'])]],
    'a guardian' => [[somebody('ines', ['kind' => 'guardian'])]],
    'who has left' => [[somebody('ines', ['state' => 'left'])]],
    'two people' => [[somebody('ines'), somebody('ivo')]],
]);

it('does not join an account that has another sign-on there, nor open a closed one', function (): void {
    expect(fn() => SignOnMatch::personId(null, [somebody('ines')], [known('ines')]))
        ->toThrow(Refusal::class, 'belongs to another sign-on')
        ->and(fn() => SignOnMatch::mustBeOpen(somebody('ines', ['state' => 'left'])))
        ->toThrow(Refusal::class, 'closed');
    SignOnMatch::mustBeOpen(somebody('ines'));
});

it('sends a link to staff and guardians who have an address, for the first of their user names', function (): void {
    $names = [new SignIn('2', 1, ['user_name' => 'later']), new SignIn('1', 1, ['user_name' => 'first'])];
    [$signIn, $to] = Credentials::linkTo(somebody('ines'), $names);
    expect($signIn->userName())
        ->toBe('first')
        ->and($to)
        ->toBe('ines@lanternfield.example')
        ->and(fn() => Credentials::linkTo(somebody('ines', ['kind' => 'student']), $names))
        ->toThrow(Refusal::class, 'Print a card')
        ->and(fn() => Credentials::linkTo(somebody('ines', ['state' => 'left']), $names))
        ->toThrow(Refusal::class)
        ->and(fn() => Credentials::linkTo(somebody('ines', ['email' => null]), $names))
        ->toThrow(Refusal::class)
        ->and(fn() => Credentials::linkTo(somebody('ines'), []))
        ->toThrow(Refusal::class);
});
