<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

/** What a school has decided on how newcomers come in. */
final readonly class SchoolRules
{
    /**
     * @param  string  $check what a newcomer is asked besides the name: none, birth_date or number
     * @param string $under13 what becomes of newcomers under 13: allow, approve or listed (only those the school has
     *     listed)
     * @param  list<string>  $domains the school's mail domains
     */
    public function __construct(
        public string $check,
        public bool $mail,
        public string $under13,
        public array $domains,
        public bool $outsideStaff,
    ) {}

    public static function of(School $school): self
    {
        $domains = json_decode($school->mailDomains(), true);

        return new self(
            $school->newcomerCheck(),
            $school->newcomerMail(),
            $school->under13(),
            is_array($domains) ? array_values(array_filter($domains, is_string(...))) : [],
            $school->outsideStaff(),
        );
    }

    /** Whether a newcomer must give a birth date: to be checked against the list, or for the rule on those under 13. */
    public function asksBirthDate(): bool
    {
        return $this->check === 'birth_date' || $this->under13 !== 'allow';
    }
}
