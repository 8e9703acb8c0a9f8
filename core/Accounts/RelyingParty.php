<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

/**
 * This installation as browsers know it when they make or show a passkey (W3C Web Authentication, level 2, 5.1.7 and
 * 13.4.9): a passkey made here is shown nowhere else, which is why no page that looks like ours can ask for one.
 *
 * Signatures only, of the two algorithms that every platform has (ES256, RS256), and a person recognised by the device
 * itself each time (a finger, a face, the code of the screen): possession and person are two factors in one. Which make
 * the authenticator is nobody asks, so there is no attestation to be read: what is kept is the public key as the
 * browser names it (5.2.1.1).
 */
final readonly class RelyingParty
{
    /** COSE numbers of ES256 and RS256, in the order they are liked. */
    public const ALGORITHMS = [-7, -257];

    private const RSA_BITS = 2048;

    private function __construct(public string $id, public string $origin) {}

    /**
     * @param  string  $address of the installation, as scheme://host[:port]
     * @return self|null null where browsers make none: without https, or where the host is a number and no name. On the
     *                   machine itself they do, under its name `localhost`
     */
    public static function at(string $address): ?self
    {
        $parts = parse_url($address);
        $host = strtolower($parts['host'] ?? '');
        $scheme = strtolower($parts['scheme'] ?? '');
        $port = isset($parts['port']) ? ":{$parts['port']}" : '';
        if (in_array($host, ['localhost', '127.0.0.1', '[::1]'], true)) {
            return new self('localhost', "$scheme://localhost$port");
        }
        if ($scheme !== 'https' || $host === '' || filter_var(trim($host, '[]'), FILTER_VALIDATE_IP) !== false) {
            return null;
        }

        return new self($host, "https://$host" . ($port === ':443' ? '' : $port));
    }

    /**
     * What a browser answers to "make one" (7.1).
     *
     * @param  string  $challenge the bytes that were sent
     * @param  string  $client clientDataJSON
     * @param  string  $data authenticator data
     * @param  string  $key public key as SubjectPublicKeyInfo, DER
     *
     * @throws NotThisPasskey
     */
    public function made(string $challenge, string $client, string $data, string $key): MadePasskey
    {
        $this->said('webauthn.create', $challenge, $client);
        $read = $this->read($data);
        $pem =
            "-----BEGIN PUBLIC KEY-----\n" . chunk_split(base64_encode($key), 64, "\n") . "-----END PUBLIC KEY-----\n";
        $opened = openssl_pkey_get_public($pem);
        $details = $opened === false ? [] : (openssl_pkey_get_details($opened) ?: []);
        $fits = match ($details['type'] ?? null) {
            OPENSSL_KEYTYPE_EC => is_array($details['ec'] ?? null) &&
                ($details['ec']['curve_name'] ?? '') === 'prime256v1',
            OPENSSL_KEYTYPE_RSA => $details['bits'] >= self::RSA_BITS,
            default => false,
        };
        if (!$fits || $read->credentialId === null) {
            throw new NotThisPasskey('the key is of a kind that is not taken here');
        }

        return new MadePasskey($read->credentialId, $pem, $read->count);
    }

    /**
     * What a browser answers to "show it" (7.2).
     *
     * @param  string  $challenge the bytes that were sent
     * @param  string  $client clientDataJSON
     * @param  string  $data authenticator data
     * @param  string  $pem public key kept when it was made
     * @param  int  $count what the authenticator had counted when it was shown last; 0 of those that do not count
     * @return int what it has counted now
     *
     * @throws NotThisPasskey
     */
    public function shown(
        string $challenge,
        string $client,
        string $data,
        string $signature,
        string $pem,
        int $count,
    ): int {
        $this->said('webauthn.get', $challenge, $client);
        $read = $this->read($data);
        if (openssl_verify($data . hash('sha256', $client, true), $signature, $pem, OPENSSL_ALGO_SHA256) !== 1) {
            throw new NotThisPasskey('the signature is not of its key');
        }
        // 6.1.1: where counts do not rise there are two of what should be one.
        if (($read->count !== 0 || $count !== 0) && $read->count <= $count) {
            throw new NotThisPasskey('there is a copy of it', true);
        }

        return $read->count;
    }

    /** @throws NotThisPasskey where the browser was asked something else, by another page or another time */
    private function said(string $type, string $challenge, string $client): void
    {
        $said = json_decode($client, true, 8);
        if (
            !is_array($said) ||
            ($said['type'] ?? null) !== $type ||
            ($said['origin'] ?? null) !== $this->origin ||
            ($said['crossOrigin'] ?? false) !== false ||
            !is_string($said['challenge'] ?? null) ||
            !hash_equals(self::encode($challenge), $said['challenge'])
        ) {
            throw new NotThisPasskey('it answers another question');
        }
    }

    /** @throws NotThisPasskey */
    private function read(string $data): AuthenticatorData
    {
        $read = AuthenticatorData::read($data) ?? throw new NotThisPasskey('its data cannot be read');
        if (!hash_equals(hash('sha256', $this->id, true), $read->partyHash)) {
            throw new NotThisPasskey('it is of another address');
        }
        if (!$read->present || !$read->verified) {
            throw new NotThisPasskey('the device did not ask who is there');
        }

        return $read;
    }

    /** base64url without padding, RFC 4648, 5. */
    public static function encode(string $bytes): string
    {
        return rtrim(strtr(base64_encode($bytes), '+/', '-_'), '=');
    }

    /** @return string|null null for what is none */
    public static function decode(string $text): ?string
    {
        $bytes = preg_match('/^[A-Za-z0-9_-]*$/D', $text) === 1 ? base64_decode(strtr($text, '-_', '+/'), true) : false;

        return $bytes === false ? null : $bytes;
    }
}
