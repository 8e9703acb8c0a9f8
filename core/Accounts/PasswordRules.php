<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\HashedSet;

/**
 * Own passwords after NIST SP 800-63B: a least length, a blocklist, no rules of composition, no forced change.
 * 8 characters for students; 15 for others who sign in with a password alone, 8 beside a second factor.
 */
final readonly class PasswordRules
{
    /** Characters of a student's own password, and of anybody's beside a second factor. */
    public const LEAST = 8;

    /** Characters where another signs in with a password alone. */
    public const LEAST_ALONE = 15;

    /** Bytes: what bcrypt reads. Longer ones are refused, not cut off. */
    private const MAX_LENGTH = 72;

    private function __construct(public int $minLength) {}

    /** @param  string  $kind student, staff or guardian */
    public static function of(string $kind, bool $secondFactor): self
    {
        return $kind === 'student' || $secondFactor ? self::forStudents() : self::forStaff();
    }

    public static function forStudents(): self
    {
        return new self(self::LEAST);
    }

    public static function forStaff(): self
    {
        return new self(self::LEAST_ALONE);
    }

    /**
     * @param  HashedSet  $known passwords that are tried first, in small letters (NIST SP 800-63B, 5.1.1.2)
     * @param  list<string>  $personal names, user name, school: things others know about the person
     *
     * @throws Refusal saying what is wrong with it and what to do
     */
    public function mustTake(string $password, HashedSet $known, array $personal = []): void
    {
        $length = mb_strlen($password);
        if ($length < $this->minLength) {
            throw new Refusal(
                'Use at least {{least}} characters; this has {{length}}. Several words are easiest.',
                'password',
                ['least' => $this->minLength, 'length' => $length],
            );
        }
        if (strlen($password) > self::MAX_LENGTH) {
            throw new Refusal('That is too long. Use fewer characters.', 'password');
        }
        $folded = (string) preg_replace('/[\s\p{P}]+/u', '', mb_strtolower($password));
        $bare = rtrim($folded, '0123456789');
        // With figures at its end, or written twice, it is tried as soon.
        $once = (string) preg_replace('/^(.+?)\1+$/u', '$1', $bare);
        foreach ([mb_strtolower($password), $folded, $bare, $once] as $tried) {
            if ($tried !== '' && $known->has($tried)) {
                throw new Refusal('That is one of the passwords attackers try first. Choose another.', 'password');
            }
        }
        if (self::isARow($folded)) {
            throw new Refusal('That is one of the passwords attackers try first. Choose another.', 'password');
        }
        if (count(array_unique(mb_str_split($folded))) < 4) {
            throw new Refusal('That uses only a few different characters. Choose another.', 'password');
        }
        foreach ($personal as $name) {
            $name = (string) preg_replace('/[\s\p{P}]+/u', '', mb_strtolower($name));
            if (mb_strlen($name) >= 4 && mb_strlen($folded) - mb_strlen($name) < 6 && str_contains($folded, $name)) {
                throw new Refusal('That is little more than a name others know. Choose another.', 'password');
            }
        }
    }

    /** Whether each sign is the one after the one before it, as in the alphabet, the figures or a row of the keys. */
    private static function isARow(string $folded): bool
    {
        foreach (['abcdefghijklmnopqrstuvwxyz', '01234567890123456789', 'qwertyuiopasdfghjklzxcvbnm'] as $row) {
            if (str_contains($row, $folded) || str_contains(strrev($row), $folded)) {
                return true;
            }
        }

        return false;
    }
}
