<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Repair;
use Vantrel\Core\Values\Language;

/** What one row of a list says of a student, read and repaired. '' where the list says nothing. */
final readonly class StudentLine
{
    /**
     * @param  int  $number of the row in the file
     * @param  list<string>  $sections names as written, the homeroom first if there is one
     * @param  list<GuardianLine>  $guardians
     * @param  list<Problem>  $problems those that stop the row keep it out
     * @param  string  $sheet the row stands in, '' where the file has one only
     * @param  bool  $mayAdd whether a student nobody knows is added by it: a list of guardians or enrollments adds none
     * @param  string  $account the account's own key, in a sheet that came out of here
     * @param  list<Repair>  $repairs
     * @param  string  $beginsOn first day of the enrollments, '' for today
     * @param  string  $endsOn last day and one, '' for open
     * @param  string  $preferred given name they go by
     * @param  string  $language of the family, as {@see Language} codes it
     * @param  int  $nth of the rows that say the same of who they are, counted from 1
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
        public string $sheet = '',
        public bool $mayAdd = true,
        public string $account = '',
        public array $repairs = [],
        public string $beginsOn = '',
        public string $endsOn = '',
        public int $nth = 1,
        public string $preferred = '',
        public string $language = '',
    ) {}

    /** What makes the row itself, wherever it stands in the file: answers are kept by it. */
    public function key(): string
    {
        return substr(
            hash(
                'sha256',
                ($this->nth === 1 ? '' : "$this->nth|") .
                    implode('|', [
                        NameKey::of($this->name->given),
                        NameKey::of($this->name->family),
                        $this->studentNumber,
                        $this->birthDate,
                        $this->email,
                        $this->grade,
                        ...$this->account === '' ? [] : [$this->account],
                    ]),
            ),
            0,
            16,
        );
    }

    /** @param  list<GuardianLine>  $guardians in place of its own */
    public function withGuardians(array $guardians): self
    {
        return $this->but(guardians: $guardians);
    }

    public function withoutEmail(Problem $problem): self
    {
        return $this->but(email: '', problems: [...$this->problems, $problem]);
    }

    public function asNth(int $nth): self
    {
        return $this->but(nth: $nth);
    }

    /** The row's place in the intake, the same for no other row. */
    public function place(): string
    {
        return "$this->sheet#$this->number";
    }

    /** "row 12", "row 12 of 3 Heron". */
    public function where(): string
    {
        return "row $this->number" . ($this->sheet === '' ? '' : " of $this->sheet");
    }

    public function stopped(): bool
    {
        return array_filter($this->problems, fn(Problem $p): bool => $p->stops) !== [];
    }

    /**
     * The same student with what another row says of them.
     *
     * @param  list<Problem>  $problems
     */
    public function with(self $other, array $problems): self
    {
        $first = fn(string $a, string $b): string => $a !== '' ? $a : $b;

        return new self(
            $this->number,
            $this->name->full() !== '' ? $this->name : $other->name,
            $first($this->studentNumber, $other->studentNumber),
            $first($this->birthDate, $other->birthDate),
            $first($this->grade, $other->grade),
            $first($this->homeroom, $other->homeroom),
            array_values(array_unique([...$this->sections, ...$other->sections])),
            $first($this->email, $other->email),
            [...$this->guardians, ...$other->guardians],
            $problems,
            $this->sheet,
            $this->mayAdd || $other->mayAdd,
            $first($this->account, $other->account),
            $this->repairs,
            $first($this->beginsOn, $other->beginsOn),
            $first($this->endsOn, $other->endsOn),
            $this->nth,
            $first($this->preferred, $other->preferred),
            $first($this->language, $other->language),
        );
    }

    /**
     * The same line, but for what is given.
     *
     * @param  list<GuardianLine>|null  $guardians
     * @param  list<Problem>|null  $problems
     */
    private function but(
        ?string $email = null,
        ?array $guardians = null,
        ?array $problems = null,
        ?int $nth = null,
    ): self {
        return new self(
            $this->number,
            $this->name,
            $this->studentNumber,
            $this->birthDate,
            $this->grade,
            $this->homeroom,
            $this->sections,
            $email ?? $this->email,
            $guardians ?? $this->guardians,
            $problems ?? $this->problems,
            $this->sheet,
            $this->mayAdd,
            $this->account,
            $this->repairs,
            $this->beginsOn,
            $this->endsOn,
            $nth ?? $this->nth,
            $this->preferred,
            $this->language,
        );
    }
}
