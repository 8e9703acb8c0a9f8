<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Vantrel\Core\Names\NameKey;

/**
 * What is known of a student for telling whether two records are one: from a list's row or from the Roll. '' is
 * unknown.
 */
final readonly class Subject
{
    public string $givenKey;

    public string $familyKey;

    /**
     * @param  list<string>  $contacts guardians' addresses and phone numbers, as stored
     * @param  list<string>  $guardians guardians' names, plain
     * @param  list<string>  $sections plain names of the sections they are in, or that the row puts them into
     * @param  bool  $claimed whether the address is one that nobody has confirmed to be theirs
     */
    public function __construct(
        public string $id,
        public string $given,
        public string $family,
        public string $birthDate = '',
        public string $number = '',
        public string $email = '',
        public string $grade = '',
        public string $schoolId = '',
        public array $contacts = [],
        public array $guardians = [],
        public array $sections = [],
        public bool $claimed = false,
    ) {
        $this->givenKey = NameKey::of($given);
        $key = NameKey::of($family);
        $this->familyKey = str_contains($key, ' ') ? (string) preg_replace('/ (jr|sr|ii|iii|iv)$/', '', $key) : $key;
    }
}
