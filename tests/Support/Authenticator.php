<?php

declare(strict_types=1);

namespace Tests\Support;

use OpenSSLAsymmetricKey;
use Vantrel\Core\Accounts\RelyingParty;

/**
 * A device that makes passkeys and shows them, as browsers hand its answers on (W3C Web Authentication, level 2). What
 * a hostile one would do differently is said by its parts, which can be written to.
 */
final class Authenticator
{
    public const PRESENT = 1;

    public const VERIFIED = 4;

    private const WITH_CREDENTIAL = 64;

    public OpenSSLAsymmetricKey $key;

    public string $id;

    public int $flags = self::PRESENT | self::VERIFIED;

    /** 0 for one that does not count, as those that are kept in step over several devices. */
    public int $count = 0;

    public string $party = 'localhost';

    public string $origin = 'http://localhost';

    /** @param  array<string, int|string>  $key as openssl_pkey_new takes it */
    public function __construct(array $key = ['private_key_type' => OPENSSL_KEYTYPE_EC, 'curve_name' => 'prime256v1'])
    {
        $this->key = openssl_pkey_new($key);
        $this->id = random_bytes(32);
    }

    /** @return array{client: string, data: string, key: string} what it answers to "make one" */
    public function make(string $question): array
    {
        return [
            'client' => RelyingParty::encode($this->client('webauthn.create', $question)),
            'data' => RelyingParty::encode(
                $this->data(self::WITH_CREDENTIAL) . str_repeat("\0", 16) . pack('n', strlen($this->id)) . $this->id,
            ),
            'key' => RelyingParty::encode($this->spki()),
        ];
    }

    /** @return array{credential: string, client: string, data: string, signature: string} to "show it" */
    public function show(string $question): array
    {
        $client = $this->client('webauthn.get', $question);
        $data = $this->data(0);
        openssl_sign($data . hash('sha256', $client, true), $signature, $this->key, OPENSSL_ALGO_SHA256);

        return array_map(RelyingParty::encode(...), [
            'credential' => $this->id,
            'client' => $client,
            'data' => $data,
            'signature' => $signature,
        ]);
    }

    public function pem(): string
    {
        return openssl_pkey_get_details($this->key)['key'];
    }

    private function spki(): string
    {
        return base64_decode((string) preg_replace('/-----[^-]+-----|\s/', '', $this->pem()), true);
    }

    private function client(string $type, string $question): string
    {
        return json_encode(
            ['type' => $type, 'challenge' => $question, 'origin' => $this->origin, 'crossOrigin' => false],
            JSON_UNESCAPED_SLASHES,
        );
    }

    private function data(int $flag): string
    {
        return hash('sha256', $this->party, true) . chr($this->flags | $flag) . pack('N', $this->count);
    }
}
