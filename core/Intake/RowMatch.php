<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Records\Person;

/** Who a row of the list is: someone known, nobody known, or not settled yet. */
final readonly class RowMatch
{
    /**
     * @param  string  $how same, transfer, also or leave; ask-transfer or ask-also of a student of another school
     * @param  string  $apart someone who is alike and yet another, in words
     */
    private function __construct(
        public Verdict $verdict,
        public ?Person $person,
        public ?Candidate $candidate,
        public string $why,
        public ?string $question,
        public string $how = 'same',
        public string $apart = '',
    ) {}

    public static function none(?string $question = null, string $apart = ''): self
    {
        return new self(Verdict::New, null, null, '', $question, 'same', $apart);
    }

    public static function found(Person $person, Candidate $candidate, string $how, ?string $question): self
    {
        return new self(Verdict::Update, $person, $candidate, '', $question, $how);
    }

    public static function asked(Candidate $candidate, string $why, string $question): self
    {
        return new self(Verdict::Ask, null, $candidate, $why, $question);
    }

    public static function refused(Candidate $candidate, string $why): self
    {
        return new self(Verdict::Cannot, null, $candidate, $why, null);
    }

    public static function skipped(string $question): self
    {
        return new self(Verdict::Cannot, null, null, 'left out, as you said', $question);
    }
}
