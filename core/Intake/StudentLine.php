<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Problem;

/** One student as one row of a list has them, read and repaired. '' where the list says nothing. */
final readonly class StudentLine
{
    /**
     * @param  int  $number of the row in the file
     * @param  list<string>  $sections names as written, the homeroom first if there is one
     * @param  list<GuardianLine>  $guardians
     * @param  list<Problem>  $problems any of these keeps the row out
     */
    public function __construct(
        public int $number,
        public PersonName $name,
        public string $studentNumber,
        public string $birthDate,
        public string $grade,
        public string $homeroom,
        public array $sections,
        public string $email,
        public array $guardians,
        public array $problems,
    ) {
    }

    /** What makes the row itself, wherever it stands in the file: answers are kept by it. */
    public function key(): string
    {
        return substr(hash('sha256', implode('|', [
            NameKey::of($this->name->given), NameKey::of($this->name->family), $this->studentNumber, $this->birthDate, $this->email, $this->grade,
        ])), 0, 16);
    }
}
