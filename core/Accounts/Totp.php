<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use InvalidArgumentException;
use Vantrel\Core\Codes\Randomness;

/**
 * Time-based one-time passwords: RFC 6238 over RFC 4226, six figures, steps of 30 seconds, SHA-1 as authenticator apps
 * expect.
 */
final readonly class Totp
{
    public const STEP = 30;

    public const DIGITS = 6;

    /** RFC 4226, 4 (R6): a shared secret of 160 bits. */
    public const SECRET_BYTES = 20;

    /** Steps before and after the present one that are taken too (RFC 6238, 5.2 advises one). */
    public const DRIFT = 1;

    private const BASE32 = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';

    /** @param  string  $secret raw bytes */
    public function __construct(private string $secret)
    {
        if ($secret === '') {
            throw new InvalidArgumentException('A secret has at least one byte.');
        }
    }

    public static function draw(Randomness $random): self
    {
        return new self($random->bytes(self::SECRET_BYTES));
    }

    /** @throws InvalidArgumentException if it is not Base32 (RFC 4648) */
    public static function fromBase32(string $text): self
    {
        $bits = '';
        foreach (str_split(rtrim(strtoupper($text), '=')) as $symbol) {
            $at = strpos(self::BASE32, $symbol);
            $bits .= str_pad(
                decbin($at === false ? throw new InvalidArgumentException("“{$symbol}” is not Base32.") : $at),
                5,
                '0',
                STR_PAD_LEFT,
            );
        }
        $bytes = '';
        foreach (str_split(substr($bits, 0, intdiv(strlen($bits), 8) * 8), 8) as $byte) {
            $bytes .= chr((int) bindec($byte));
        }

        return new self($bytes);
    }

    public function base32(): string
    {
        $bits = implode(
            '',
            array_map(
                fn(string $b): string => str_pad(decbin(ord($b)), 8, '0', STR_PAD_LEFT),
                str_split($this->secret),
            ),
        );

        return implode(
            '',
            array_map(
                fn(string $five): string => self::BASE32[(int) bindec(str_pad($five, 5, '0'))],
                str_split($bits, 5),
            ),
        );
    }

    /**
     * The code at an instant.
     *
     * @param  int  $time seconds since 1970
     * @param  string  $algorithm sha1, sha256 or sha512
     */
    public function at(int $time, int $digits = self::DIGITS, string $algorithm = 'sha1'): string
    {
        return $this->forStep(intdiv($time, self::STEP), $digits, $algorithm);
    }

    /**
     * The step whose code this is, no further than the drift from now and later than the last one taken; null if there
     * is none. Every step is compared, in constant time.
     *
     * @param  int  $lastStep step of the last code that was taken: no code is taken twice
     */
    public function accept(string $typed, int $time, int $lastStep): ?int
    {
        $typed = (string) preg_replace('/\s+/', '', $typed);
        $found = null;
        for ($drift = -self::DRIFT; $drift <= self::DRIFT; $drift++) {
            $step = intdiv($time, self::STEP) + $drift;
            if (hash_equals($this->forStep($step, self::DIGITS, 'sha1'), $typed) && $step > $lastStep) {
                $found = $step;
            }
        }

        return $found;
    }

    /** What an authenticator app reads from a QR code: a key URI with issuer and account. */
    public function uri(string $issuer, string $account): string
    {
        return 'otpauth://totp/' .
            rawurlencode($issuer) .
            ':' .
            rawurlencode($account) .
            '?' .
            http_build_query(
                ['secret' => $this->base32(), 'issuer' => $issuer, 'digits' => self::DIGITS, 'period' => self::STEP],
                '',
                '&',
                PHP_QUERY_RFC3986,
            );
    }

    /** RFC 4226, 5.3: dynamic truncation of the HMAC of the counter. */
    private function forStep(int $step, int $digits, string $algorithm): string
    {
        $hash = hash_hmac($algorithm, pack('J', $step), $this->secret, true);
        $offset = ord($hash[strlen($hash) - 1]) & 0x0f;
        /** @var array{1: int} $word */
        $word = unpack('N', substr($hash, $offset, 4));

        return str_pad((string) (($word[1] & 0x7fffffff) % 10 ** $digits), $digits, '0', STR_PAD_LEFT);
    }
}
