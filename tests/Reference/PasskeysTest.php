<?php

declare(strict_types=1);

use Tests\Support\Authenticator;
use Vantrel\Core\Accounts\NotThisPasskey;
use Vantrel\Core\Accounts\RelyingParty;

/**
 * Source: fido2-assert of libfido2 (Debian's fido2-tools), which checks an assertion by itself from the hash of the
 * client data, the relying party, the authenticator data and the signature; `-p` and `-v` ask for somebody present and
 * recognised. It knows nothing of questions and origins, which the browser's tests hold with Chromium's authenticator.
 */
function fido2Takes(Authenticator $device, array $answer, string $kind, string $party): bool
{
    $folder = sys_get_temp_dir() . '/fido2-' . bin2hex(random_bytes(6));
    mkdir($folder);
    $bytes = fn(string $part): string => (string) RelyingParty::decode($answer[$part]);
    $data = $bytes('data');
    file_put_contents("$folder/key.pem", $device->pem());
    // The authenticator data as a CBOR byte string of up to 255 bytes (RFC 8949, 3.1).
    file_put_contents(
        "$folder/answer",
        implode("\n", [
            base64_encode(hash('sha256', $bytes('client'), true)),
            $party,
            base64_encode("\x58" . chr(strlen($data)) . $data),
            base64_encode($bytes('signature')),
        ]) . "\n",
    );
    exec("fido2-assert -V -p -v -i $folder/answer $folder/key.pem $kind 2>/dev/null", result_code: $code);
    array_map(unlink(...), glob("$folder/*") ?: []);
    rmdir($folder);

    return $code === 0;
}

it('takes the same answers as an independent library', function (string $kind, array $key): void {
    $question = random_bytes(32);
    $party = RelyingParty::at('https://roll.lanternfield.example');
    $device = new Authenticator($key);
    $device->origin = $party->origin;
    $other = new Authenticator($key);
    $verdicts = [];
    foreach (
        [
            'right' => [$party->id, 5, null],
            'another address' => ['elsewhere.example', 5, null],
            'nobody recognised' => [$party->id, Authenticator::PRESENT, null],
            'nobody present' => [$party->id, Authenticator::VERIFIED, null],
            'another data' => [$party->id, 5, 'data'],
            'another signature' => [$party->id, 5, 'signature'],
            'of another key' => [$party->id, 5, 'key'],
        ]
        as $what => [$id, $flags, $altered]
    ) {
        [$device->party, $device->flags] = [$id, $flags];
        $device->count = 200;
        $answer = $device->show(RelyingParty::encode($question));
        if ($altered === 'key') {
            [$other->party, $other->origin, $other->count] = [$id, $party->origin, 200];
            $answer['signature'] = $other->show(RelyingParty::encode($question))['signature'];
        } elseif ($altered !== null) {
            $bytes = (string) RelyingParty::decode($answer[$altered]);
            $bytes[strlen($bytes) - 1] = chr(ord($bytes[strlen($bytes) - 1]) ^ 1);
            $answer[$altered] = RelyingParty::encode($bytes);
        }
        try {
            $ours =
                $party->shown(
                    $question,
                    (string) RelyingParty::decode($answer['client']),
                    (string) RelyingParty::decode($answer['data']),
                    (string) RelyingParty::decode($answer['signature']),
                    $device->pem(),
                    0,
                ) > 0;
        } catch (NotThisPasskey) {
            $ours = false;
        }
        $verdicts[$what] = [$ours, fido2Takes($device, $answer, $kind, $party->id)];
    }
    expect($verdicts)->each->toBeIn([[true, true], [false, false]]);
    expect(array_keys(array_filter($verdicts, fn(array $v): bool => $v[0])))->toBe(['right']);
})->with([
    ['es256', ['private_key_type' => OPENSSL_KEYTYPE_EC, 'curve_name' => 'prime256v1']],
    ['rs256', ['private_key_type' => OPENSSL_KEYTYPE_RSA, 'private_key_bits' => 2048]],
]);
