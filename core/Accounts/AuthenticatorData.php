<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

/** What an authenticator says of itself and is signed with the answer (W3C Web Authentication, level 2, 6.1). */
final readonly class AuthenticatorData
{
    private const PRESENT = 0x01;

    private const VERIFIED = 0x04;

    private const HAS_CREDENTIAL = 0x40;

    /** Hash of the party 32, flags 1, count 4. */
    private const HEAD = 37;

    /** Make 16, length of the id 2. */
    private const CREDENTIAL_HEAD = 18;

    /** Longest id of a credential, in bytes (level 2, 4, "Credential ID"). */
    private const LONGEST_ID = 1023;

    /**
     * @param  string  $partyHash SHA-256 of the id of the party, 32 bytes
     * @param  bool  $present whether somebody touched it
     * @param  bool  $verified whether it knew who
     * @param  int  $count of answers it has signed, 0 where it does not count
     * @param  string|null  $credentialId bytes, where one was made
     */
    private function __construct(
        public string $partyHash,
        public bool $present,
        public bool $verified,
        public int $count,
        public ?string $credentialId,
    ) {}

    /** @return self|null null for what is none */
    public static function read(string $bytes): ?self
    {
        if (strlen($bytes) < self::HEAD) {
            return null;
        }
        $flags = ord($bytes[32]);
        $id = null;
        if (($flags & self::HAS_CREDENTIAL) !== 0) {
            $length = self::number($bytes, self::HEAD + 16, 2);
            $id = substr($bytes, self::HEAD + self::CREDENTIAL_HEAD, $length);
            if ($length === 0 || $length > self::LONGEST_ID || strlen($id) !== $length) {
                return null;
            }
        }

        return new self(
            substr($bytes, 0, 32),
            ($flags & self::PRESENT) !== 0,
            ($flags & self::VERIFIED) !== 0,
            self::number($bytes, 33, 4),
            $id,
        );
    }

    /** Big-endian; missing bytes count as none. */
    private static function number(string $bytes, int $at, int $length): int
    {
        return (int) hexdec(bin2hex(substr($bytes, $at, $length)));
    }
}
