<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\SignIn\OwnPassword;
use Vantrel\Core\SignIn\Pictures;
use Vantrel\Core\SignIn\SignInPolicy;
use Vantrel\Core\SignIn\Totp;
use Vantrel\Core\SignIn\Way;

it('finds the way for every grade, and a passphrase where nothing is said', function (): void {
    $policy = SignInPolicy::read('-1:2 card, 6:8 own, 9:12 school');
    expect($policy->way('PK'))->toBe(Way::Card)->and($policy->way('02'))->toBe(Way::Card)->and($policy->way('03'))->toBe(Way::Passphrase)->and($policy->way('08'))->toBe(Way::Own)->and($policy->way('12'))->toBe(Way::School)
        ->and($policy->way('13'))->toBe(Way::Passphrase)->and($policy->way(null))->toBe(Way::Passphrase)
        ->and(SignInPolicy::read('')->way('05'))->toBe(Way::Passphrase);
});

it('writes neighbouring grades of one way as one band', function (): void {
    expect(SignInPolicy::read('2:2 own, 0:0 card, 1:1 card')->text())->toBe('0:1 card, 2:2 own')->and(SignInPolicy::read('')->text())->toBe('');
    $text = SignInPolicy::read('-1:2 card, 6:8 own')->text();
    expect(SignInPolicy::read($text)->text())->toBe($text);
});

it('refuses bands that overlap or say nothing', function (string $stored): void {
    expect(fn () => SignInPolicy::read($stored))->toThrow(Refusal::class);
})->with(['0:3 card, 2:5 own', '0:3 magic', 'card', '5:2 card']);

it('takes a code once, within one step of now', function (): void {
    $totp = Totp::draw(new KeyedStream(str_repeat('k', 32), 'totp'));
    $now = 1_790_000_000;
    $step = intdiv($now, 30);
    expect($totp->accept($totp->at($now), $now, 0))->toBe($step)->and($totp->accept($totp->at($now - 30), $now, 0))->toBe($step - 1)->and($totp->accept($totp->at($now + 30), $now, 0))->toBe($step + 1)
        ->and($totp->accept($totp->at($now - 60), $now, 0))->toBeNull()->and($totp->accept($totp->at($now + 60), $now, 0))->toBeNull()
        ->and($totp->accept($totp->at($now), $now, $step))->toBeNull()
        ->and($totp->accept(substr_replace($totp->at($now), ' ', 3, 0), $now, 0))->toBe($step)
        ->and($totp->accept('', $now, 0))->toBeNull()->and($totp->accept('abcdef', $now, 0))->toBeNull();
});

it('says its key as an authenticator reads it', function (): void {
    $totp = new Totp('12345678901234567890');
    expect($totp->uri('Vantrel', 'ines@lanternfield.example'))->toBe('otpauth://totp/Vantrel:ines%40lanternfield.example?secret=GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ&issuer=Vantrel&digits=6&period=30')
        ->and(Totp::fromBase32($totp->base32()))->toEqual($totp)->and(fn () => Totp::fromBase32('01'))->toThrow(InvalidArgumentException::class);
});

it('takes three pictures of ours and not three alike', function (): void {
    expect(Pictures::word(['boat', 'leaf', 'boat']))->toBe('boat leaf boat')->and(fn () => Pictures::word(['boat', 'leaf']))->toThrow(Refusal::class)->and(fn () => Pictures::word(['boat', 'leaf', 'dragon']))->toThrow(Refusal::class)
        ->and(fn () => Pictures::mustBeNew(['boat', 'boat', 'boat']))->toThrow(Refusal::class);
});

it('ends the printed passphrase with the own password', function (): void {
    $signIn = new Row('s', 1, ['user_name' => 'uma.rao', 'passphrase' => 'sealed', 'password' => null]);
    expect(OwnPassword::set($signIn, 'hash')->changes[0]->after)->toBe(['password' => 'hash', 'passphrase' => null]);
});
