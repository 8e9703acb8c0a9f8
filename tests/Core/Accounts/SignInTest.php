<?php

declare(strict_types=1);

// mutates: Codes

use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Accounts\OwnSecrets;
use Vantrel\Core\Accounts\Pictures;
use Vantrel\Core\Accounts\SignInPolicy;
use Vantrel\Core\Accounts\Totp;
use Vantrel\Core\Accounts\Way;
use Vantrel\Core\Accounts\WordList;
use Vantrel\Core\Codes\CodeChances;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\SignIn;

it('finds the way for every grade, and a passphrase where nothing is said', function (): void {
    $policy = SignInPolicy::read('-1:2 card, 6:8 own, 9:12 school');
    expect($policy->way('PK'))
        ->toBe(Way::Card)
        ->and($policy->way('02'))
        ->toBe(Way::Card)
        ->and($policy->way('03'))
        ->toBe(Way::Passphrase)
        ->and($policy->way('08'))
        ->toBe(Way::Own)
        ->and($policy->way('12'))
        ->toBe(Way::School)
        ->and($policy->way('13'))
        ->toBe(Way::Passphrase)
        ->and($policy->way(null))
        ->toBe(Way::Passphrase)
        ->and(SignInPolicy::read('')->way('05'))
        ->toBe(Way::Passphrase);
});

it('writes neighbouring grades of one way as one band', function (): void {
    expect(SignInPolicy::read('2:2 own, 0:0 card, 1:1 card')->text())
        ->toBe('0:1 card, 2:2 own')
        ->and(SignInPolicy::read('')->text())
        ->toBe('');
    $text = SignInPolicy::read('-1:2 card, 6:8 own')->text();
    expect(SignInPolicy::read($text)->text())->toBe($text);
});

it('refuses bands that overlap or say nothing', function (string $stored): void {
    expect(fn() => SignInPolicy::read($stored))->toThrow(Refusal::class);
})->with(['0:3 card, 2:5 own', '0:3 magic', 'card', '5:2 card']);

it('takes a code once, within one step of now', function (): void {
    $totp = Totp::draw(new KeyedStream(str_repeat('k', 32), 'totp'));
    $now = 1_790_000_000;
    $step = intdiv($now, 30);
    expect($totp->accept($totp->at($now), $now, 0))
        ->toBe($step)
        ->and($totp->accept($totp->at($now - 30), $now, 0))
        ->toBe($step - 1)
        ->and($totp->accept($totp->at($now + 30), $now, 0))
        ->toBe($step + 1)
        ->and($totp->accept($totp->at($now - 60), $now, 0))
        ->toBeNull()
        ->and($totp->accept($totp->at($now + 60), $now, 0))
        ->toBeNull()
        ->and($totp->accept($totp->at($now), $now, $step))
        ->toBeNull()
        ->and($totp->accept(substr_replace($totp->at($now), ' ', 3, 0), $now, 0))
        ->toBe($step)
        ->and($totp->accept('', $now, 0))
        ->toBeNull()
        ->and($totp->accept('abcdef', $now, 0))
        ->toBeNull();
});

it('says its key as an authenticator reads it', function (): void {
    $totp = new Totp('12345678901234567890');
    expect($totp->uri('Vantrel', 'ines@lanternfield.example'))
        ->toBe(
            'otpauth://totp/Vantrel:ines%40lanternfield.example?secret=GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ&issuer=Vantrel&digits=6&period=30',
        )
        ->and(Totp::fromBase32($totp->base32()))
        ->toEqual($totp)
        ->and(fn() => Totp::fromBase32('01'))
        ->toThrow(InvalidArgumentException::class);
});

it('takes three pictures of ours and not three alike', function (): void {
    expect(Pictures::word(['boat', 'leaf', 'boat']))
        ->toBe('boat leaf boat')
        ->and(fn() => Pictures::word(['boat', 'leaf']))
        ->toThrow(Refusal::class)
        ->and(fn() => Pictures::word(['boat', 'leaf', 'dragon']))
        ->toThrow(Refusal::class)
        ->and(fn() => Pictures::mustBeNew(['boat', 'boat', 'boat']))
        ->toThrow(Refusal::class);
});

it('ends the printed passphrase with the own password', function (): void {
    $signIn = new SignIn('s', 1, [
        'user_name' => 'uma.rao',
        'passphrase' => 'sealed',
        'password' => null,
        'temporary' => 0,
    ]);
    expect(OwnSecrets::set($signIn, 'hash')->changes[0]->after)->toBe(['password' => 'hash', 'passphrase' => null]);
});

it('binds students who are here, and nobody else', function (): void {
    $policy = SignInPolicy::read('0:2 card, 3:5 own');
    expect($policy->wayOf('student', 'active', '01'))
        ->toBe(Way::Card)
        ->and($policy->wayOf('student', 'reserve', '01'))
        ->toBeNull()
        ->and($policy->wayOf('staff', 'active', null))
        ->toBeNull()
        ->and($policy->wayOf('guardian', 'active', null))
        ->toBeNull();
});

it('takes what is typed as the way of signing in says', function (
    Way $way,
    bool $own,
    ?string $refusal,
    bool $asks,
): void {
    $said = null;
    try {
        $way->mustTakeSecret($own);
    } catch (Refusal $e) {
        $said = $e->getMessage();
        expect($e->field)->toBe('secret');
    }
    expect($said)->toBe($refusal)->and($way->asksForOwn($own))->toBe($asks);
})->with([
    'a passphrase where there are cards only' => [
        Way::Card,
        false,
        'Students of your grade sign in with the card: point the camera at its square.',
        false,
    ],
    'a password chosen before there were cards only' => [Way::Card, true, null, false],
    'the passphrase of the card' => [Way::Passphrase, false, null, false],
    'the first sign-in with an own password to come' => [Way::Own, false, null, true],
    'an own password' => [Way::Own, true, null, false],
    'anything typed where the school signs in' => [
        Way::School,
        true,
        'Students of your grade sign in with the school’s own sign-on.',
        false,
    ],
]);

it('bears so few wrong tries that a day of guessing finds next to nothing', function (): void {
    $aDay = fn(Limit $limit): float => ($limit->most() * 86400) / $limit->seconds();
    $words = count(
        WordList::fromText((string) file_get_contents(__DIR__ . '/../../../resources/words/passphrase.txt'))->words,
    );
    // One address may spread its tries over every account of a school.
    $names = 50_000;
    expect(($aDay(Limit::SignInAddress) + $names * $aDay(Limit::SignInNameAddress)) / $words ** 3)
        ->toBeLessThan(0.0001)
        // A code of the second factor: three steps are good at any time (RFC 6238, 5.2).
        ->and(($aDay(Limit::SecondFactor) * 3) / 10 ** Totp::DIGITS)
        ->toBeLessThan(0.002)
        ->and($aDay(Limit::ProofStudent) / 365)
        ->toBeLessThan(0.02)
        // Seven symbols with the check for 490 open codes, eight for ten thousand: both limits together.
        ->and((new CodeChances(490, (int) ($aDay(Limit::CodeAddress) + $aDay(Limit::CodeAccount))))->guessPerDay(6))
        ->toBeLessThan(0.0001)
        ->and((new CodeChances(10_000, (int) ($aDay(Limit::CodeAddress) + $aDay(Limit::CodeAccount))))->guessPerDay(7))
        ->toBeLessThan(0.0001)
        // All addresses together, however many: what comes in without a look is bounded by the installation.
        ->and((new CodeChances(490, (int) $aDay(Limit::CodeInstallation)))->guessPerDay(6))
        ->toBeLessThan(0.001);
    foreach (Limit::cases() as $limit) {
        $least = $limit === Limit::Requests ? 60 : 900;
        expect($limit->most())->toBeGreaterThan(0)->and($limit->seconds())->toBeGreaterThanOrEqual($least);
    }
});

it('asks for a second factor as the strictest school somebody works in', function (
    string $rule,
    bool $works,
    bool $coordinates,
    bool $asks,
): void {
    expect(Vantrel\Core\Accounts\SecondFactorRule::from($rule)->asks($works, $coordinates))->toBe($asks);
})->with([
    ['optional', true, true, false],
    ['coordinators', true, false, false],
    ['coordinators', false, true, true],
    ['coordinators', true, true, true],
    ['staff', true, false, true],
    ['staff', false, true, true],
    ['staff', false, false, false],
]);

it('lets what opens an account last as long as is said', function (): void {
    expect(Vantrel\Core\Accounts\Lifetime::LinkAskedFor->minutes())
        ->toBe(60)
        ->and(Vantrel\Core\Accounts\Lifetime::LinkSent->minutes())
        ->toBe(7 * 24 * 60)
        ->and(Vantrel\Core\Accounts\Lifetime::JustSignedIn->value)
        ->toBeLessThan(Vantrel\Core\Accounts\Lifetime::Idle->value);
});
