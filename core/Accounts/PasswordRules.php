<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;

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

    /**
     * Common practice, no source: the commonest choices, folded; longer ones built from these are found by the pattern
     * rules.
     */
    // prettier-ignore
    private const COMMON = [
        'password', 'passwort', 'qwertyuiop', 'letmein', 'iloveyou', 'welcome', 'football', 'baseball', 'sunshine',
        'princess', 'dragon', 'monkey', 'schoolschool', 'abcdefgh', 'abcdefghijklmno', '12345678', '123456789',
        '1234567890', '123456789012345', 'asdfghjkl', 'zxcvbnm', 'trustno',
    ];

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
     * @param  list<string>  $personal names, user name, school: things others know about the person
     *
     * @throws Refusal saying what is wrong with it and what to do
     */
    public function mustTake(string $password, array $personal = []): void
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
        if (in_array($folded, self::COMMON, true) || in_array($bare, self::COMMON, true)) {
            throw new Refusal('That is one of the passwords attackers try first. Choose another.', 'password');
        }
        if (count(array_unique(mb_str_split($folded))) < 4) {
            throw new Refusal('That uses only a few different characters. Choose another.', 'password');
        }
        foreach ($personal as $known) {
            $known = (string) preg_replace('/[\s\p{P}]+/u', '', mb_strtolower($known));
            if (mb_strlen($known) >= 4 && mb_strlen($folded) - mb_strlen($known) < 6 && str_contains($folded, $known)) {
                throw new Refusal('That is little more than a name others know. Choose another.', 'password');
            }
        }
    }
}
