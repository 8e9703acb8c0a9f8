<?php

declare(strict_types=1);

use Vantrel\Core\Accounts\CredentialKind;
use Vantrel\Core\Accounts\FactorSet;
use Vantrel\Core\Guardians\HeldGrant;
use Vantrel\Core\Plan\Refusal;

it('is on while there is an app or a passkey, and its owner keeps one where a school asks', function (): void {
    $both = new FactorSet(true, 1);
    expect([$both->withoutApp()->isOn(), $both->withoutPasskey()->isOn()])->toBe([true, true]);
    $both->withoutApp()->mustDo(true);
    $last = $both->withoutApp()->withoutPasskey();
    expect($last->isOn())->toBeFalse()->and(fn() => $last->mustDo(true))->toThrow(Refusal::class);
    $last->mustDo(false);
    expect((new FactorSet(false, 2))->withoutPasskey()->isOn())->toBeTrue();
    (new FactorSet(false, 9))->mustHaveRoom();
    expect(fn() => (new FactorSet(false, 10))->mustHaveRoom())->toThrow(Refusal::class);
});

it('takes the password of whoever ends a factor of somebody, and of nothing else', function (): void {
    $taking = array_filter(CredentialKind::cases(), fn(CredentialKind $k): bool => $k->isFactor());
    expect(array_values($taking))->toBe([CredentialKind::Passkey, CredentialKind::SecondFactor]);
});

it('says when what was given is over, over the turn of a year and a leap day', function (): void {
    expect(HeldGrant::until('2027-12-25 08:30:00'))
        ->toBe('2028-01-08 08:30:00')
        ->and(HeldGrant::until('2028-02-20 23:59:59'))
        ->toBe('2028-03-05 23:59:59');
});
