<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/**
 * Own passwords after NIST SP 800-63B: a least length, a blocklist, no rules of composition, no forced change.
 * 8 characters for students; 15 for others who sign in with a password alone, 8 beside a second factor.
 */
final readonly class PasswordRules
{
    private const MAX_LENGTH = 64 * 4;

    /** Common practice, no source: the commonest choices, folded; longer ones built from these are found by the pattern rules. */
    private const COMMON = ['password', 'passwort', 'qwertyuiop', 'letmein', 'iloveyou', 'welcome', 'football', 'baseball', 'sunshine', 'princess', 'dragon', 'monkey', 'schoolschool', 'abcdefgh', 'abcdefghijklmno', '12345678', '123456789', '1234567890', '123456789012345', 'asdfghjkl', 'zxcvbnm', 'trustno'];

    private function __construct(public int $minLength)
    {
    }

    /** @param  string  $kind student, staff or guardian */
    public static function of(string $kind, bool $secondFactor): self
    {
        return $kind === 'student' || $secondFactor ? self::forStudents() : self::forStaff();
    }

    public static function forStudents(): self
    {
        return new self(8);
    }

    public static function forStaff(): self
    {
        return new self(15);
    }

    /**
     * @param  list<string>  $personal names, user name, school: things others know about the person
     * @return string|null what is wrong and what to do, or null if the password is fine
     */
    public function problem(string $password, array $personal = []): ?string
    {
        $length = mb_strlen($password);
        if ($length < $this->minLength) {
            return "Use at least {$this->minLength} characters; this has $length. Several words are easiest.";
        }
        if (strlen($password) > self::MAX_LENGTH) {
            return 'Use at most 256 bytes.';
        }
        $folded = (string) preg_replace('/[\s\p{P}]+/u', '', mb_strtolower($password));
        $bare = rtrim($folded, '0123456789');
        if (in_array($folded, self::COMMON, true) || in_array($bare, self::COMMON, true)) {
            return 'That is one of the passwords that are tried first. Choose another.';
        }
        if (count(array_unique(mb_str_split($folded))) < 4) {
            return 'That repeats too few characters. Choose another.';
        }
        foreach ($personal as $known) {
            $known = (string) preg_replace('/[\s\p{P}]+/u', '', mb_strtolower($known));
            if (mb_strlen($known) >= 4 && mb_strlen($folded) - mb_strlen($known) < 6 && str_contains($folded, $known)) {
                return 'That is little more than a name others know. Choose another.';
            }
        }

        return null;
    }
}
