<?php

declare(strict_types=1);

namespace Vantrel\Core\Matching;

use Vantrel\Core\Names\NameKey;

/** What is known of a student for telling whether two records are one: from a list's row or from the Roll. '' is unknown. */
final readonly class Subject
{
    public string $givenKey;

    public string $familyKey;

    /** @param  list<string>  $contacts guardians' addresses and phone numbers, as stored */
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
    ) {
        $this->givenKey = NameKey::of($given);
        $this->familyKey = NameKey::of($family);
    }
}
