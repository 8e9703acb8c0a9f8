<?php

declare(strict_types=1);

namespace App\StandIns;

use Illuminate\Support\Facades\File;
use RuntimeException;

/**
 * The stand-in provider's key pairs, in a file of the instance: the newest signs, the one before is still published.
 */
final class OpenIdKeys
{
    private const KEPT = 2;

    /** @param  list<array{kid: string, private: string}>  $keys newest last */
    private function __construct(private array $keys) {}

    public static function load(): self
    {
        $keys = is_file(self::path()) ? json_decode((string) file_get_contents(self::path()), true) : [];
        $store = new self(is_array($keys) ? array_values($keys) : []);
        if ($store->keys === []) {
            $store->rotate();
        }

        return $store;
    }

    /** Draws a new pair that signs from now on. */
    public function rotate(): void
    {
        $pair = openssl_pkey_new(['private_key_bits' => 2048, 'private_key_type' => OPENSSL_KEYTYPE_RSA]);
        if ($pair === false || !openssl_pkey_export($pair, $private) || !is_string($private)) {
            throw new RuntimeException('OpenSSL could not make a key pair.');
        }
        $this->keys = array_slice(
            [...$this->keys, ['kid' => bin2hex(random_bytes(8)), 'private' => $private]],
            -self::KEPT,
        );
        File::ensureDirectoryExists(dirname(self::path()));
        file_put_contents(self::path(), json_encode($this->keys, JSON_THROW_ON_ERROR), LOCK_EX);
        chmod(self::path(), 0600);
    }

    /** @return array{kid: string, private: string} */
    public function newest(): array
    {
        return $this->keys[count($this->keys) - 1];
    }

    /** @return array{keys: list<array<string, string>>} a JSON Web Key Set (RFC 7517) */
    public function public(): array
    {
        $base64 = fn(string $bytes): string => rtrim(strtr(base64_encode($bytes), '+/', '-_'), '=');

        return [
            'keys' => array_map(function (array $key) use ($base64): array {
                $private = openssl_pkey_get_private($key['private']);
                $details = $private === false ? false : openssl_pkey_get_details($private);
                if ($details === false) {
                    throw new RuntimeException(
                        'A key of the stand-in provider cannot be read. Delete ' . self::path() . '.',
                    );
                }

                return [
                    'kty' => 'RSA',
                    'use' => 'sig',
                    'alg' => 'RS256',
                    'kid' => $key['kid'],
                    'n' => $base64($details['rsa']['n']),
                    'e' => $base64($details['rsa']['e']),
                ];
            }, $this->keys),
        ];
    }

    private static function path(): string
    {
        return storage_path('app/stand-ins/openid-keys.json');
    }
}
