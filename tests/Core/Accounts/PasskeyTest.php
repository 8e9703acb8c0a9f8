<?php

declare(strict_types=1);

use Tests\Support\Authenticator;
use Vantrel\Core\Accounts\AuthenticatorData;
use Vantrel\Core\Accounts\NotThisPasskey;
use Vantrel\Core\Accounts\RelyingParty;

beforeEach(function (): void {
    $this->party = RelyingParty::at('http://127.0.0.1');
    $this->question = random_bytes(32);
    $this->device = new Authenticator();
    $this->made = fn(array $answer) => $this->party->made(
        $this->question,
        RelyingParty::decode($answer['client']),
        RelyingParty::decode($answer['data']),
        RelyingParty::decode($answer['key']),
    );
    $this->shown = fn(array $answer, int $count = 0): int => $this->party->shown(
        $this->question,
        RelyingParty::decode($answer['client']),
        RelyingParty::decode($answer['data']),
        RelyingParty::decode($answer['signature']),
        $this->device->pem(),
        $count,
    );
});

it('knows where browsers make passkeys', function (string $address, ?string $id, ?string $origin): void {
    $party = RelyingParty::at($address);
    expect([$party?->id, $party?->origin])->toBe([$id, $origin]);
})->with([
    ['https://Roll.Lanternfield.example', 'roll.lanternfield.example', 'https://roll.lanternfield.example'],
    ['https://roll.lanternfield.example:8443', 'roll.lanternfield.example', 'https://roll.lanternfield.example:8443'],
    ['https://roll.lanternfield.example:443', 'roll.lanternfield.example', 'https://roll.lanternfield.example'],
    ['http://127.0.0.1:8080', 'localhost', 'http://localhost:8080'],
    ['http://roll.lanternfield.example', null, null],
    ['https://192.0.2.7', null, null],
    ['https://[2001:db8::7]', null, null],
    ['', null, null],
]);

it('takes what a device makes and shows, and nothing of it that is altered', function (array $key): void {
    $this->device = new Authenticator($key);
    $made = ($this->made)($this->device->make(RelyingParty::encode($this->question)));
    expect($made->credentialId)->toBe($this->device->id);
    $answer = $this->device->show(RelyingParty::encode($this->question));
    expect(($this->shown)($answer))->toBe(0);
    foreach (['client', 'data', 'signature'] as $part) {
        $bytes = RelyingParty::decode($answer[$part]);
        for ($at = 0; $at < strlen($bytes); $at += 7) {
            $other = $bytes;
            $other[$at] = chr(ord($other[$at]) ^ 1);
            expect(fn() => ($this->shown)([...$answer, $part => RelyingParty::encode($other)]))->toThrow(
                NotThisPasskey::class,
            );
        }
    }
})->with([
    'ES256' => [['private_key_type' => OPENSSL_KEYTYPE_EC, 'curve_name' => 'prime256v1']],
    'RS256' => [['private_key_type' => OPENSSL_KEYTYPE_RSA, 'private_key_bits' => 2048]],
]);

it('takes no key that is weak or of another kind', function (array $key): void {
    $device = new Authenticator($key);
    expect(fn() => ($this->made)($device->make(RelyingParty::encode($this->question))))->toThrow(NotThisPasskey::class);
})->with([
    [['private_key_type' => OPENSSL_KEYTYPE_RSA, 'private_key_bits' => 1024]],
    [['private_key_type' => OPENSSL_KEYTYPE_EC, 'curve_name' => 'secp256k1']],
]);

it('takes no answer of another page or address, or of a device that asked nobody', function (Closure $otherwise): void {
    $question = RelyingParty::encode($this->question);
    $otherwise($this->device);
    expect(fn() => ($this->shown)($this->device->show($question)))
        ->toThrow(NotThisPasskey::class)
        ->and(fn() => ($this->made)($this->device->make($question)))
        ->toThrow(NotThisPasskey::class);
})->with([
    'page' => [fn(Authenticator $d): string => ($d->origin = 'http://localhost.lanternfield.example')],
    'address' => [fn(Authenticator $d): string => ($d->party = 'lanternfield.example')],
    'nobody touched it' => [fn(Authenticator $d): int => ($d->flags = Authenticator::VERIFIED)],
    'nobody was recognised' => [fn(Authenticator $d): int => ($d->flags = Authenticator::PRESENT)],
]);

it('takes no answer to another question', function (): void {
    $other = RelyingParty::encode(random_bytes(32));
    expect(fn() => ($this->shown)($this->device->show($other)))
        ->toThrow(NotThisPasskey::class)
        ->and(fn() => ($this->made)($this->device->make($other)))
        ->toThrow(NotThisPasskey::class);
});

it('takes what was made for nothing that is shown, and the other way round', function (): void {
    $question = RelyingParty::encode($this->question);
    $made = $this->device->make($question);
    $shown = $this->device->show($question);
    expect(fn() => ($this->shown)([...$shown, 'client' => $made['client']]))
        ->toThrow(NotThisPasskey::class)
        ->and(fn() => ($this->made)([...$made, 'client' => $shown['client']]))
        ->toThrow(NotThisPasskey::class)
        ->and(fn() => ($this->made)([...$made, 'data' => $shown['data']]))
        ->toThrow(NotThisPasskey::class);
});

it('notes a copy by its count, of a device that counts', function (): void {
    $question = RelyingParty::encode($this->question);
    $this->device->count = 7;
    $answer = $this->device->show($question);
    expect(($this->shown)($answer, 6))->toBe(7);
    foreach ([7, 8] as $before) {
        try {
            ($this->shown)($answer, $before);
            $this->fail('A count that does not rise was taken.');
        } catch (NotThisPasskey $e) {
            expect($e->copied)->toBeTrue();
        }
    }
    $this->device->count = 0;
    expect(fn() => ($this->shown)($this->device->show($question), 3))->toThrow(NotThisPasskey::class);
});

it('reads no data that is cut off anywhere', function (): void {
    $whole = RelyingParty::decode($this->device->make('q')['data']);
    for ($length = 0; $length < strlen($whole); $length++) {
        expect(AuthenticatorData::read(substr($whole, 0, $length)))->toBeNull();
    }
    expect(AuthenticatorData::read($whole)?->credentialId)->toBe($this->device->id);
});
