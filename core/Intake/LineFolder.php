<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Values\StudentNumber;

/**
 * Brings rows together that speak of one student: a row for each guardian, a row for each section, a sheet for each
 * section, a list of students and a list of their guardians. Rows that only repeat each other, or contradict each
 * other, are kept out.
 */
final class LineFolder
{
    /** @var array<string, StudentLine> place of the first row to what all of its rows say */
    private array $folded = [];

    /** @var array<string, string> place of a further row to the place of the first */
    private array $joined = [];

    /**
     * @var array<string, array{StudentLine, Problem, string}> place of a row kept out to the row, why, and in a few
     *     words
     */
    private array $refused = [];

    /**
     * @var array<string, array<string, GuardianLine>> place of the first row to the guardians its further rows name;
     *     there may be thousands
     */
    private array $guardians = [];

    /** @var array<string, string> */
    private array $byNumber = [];

    /** @var array<string, string> */
    private array $byAccount = [];

    /** @var array<string, list<string>> */
    private array $byName = [];

    /** @param  list<StudentLine>  $lines */
    public function __construct(array $lines)
    {
        // Rows that name the student fully come first, wherever their sheet stands.
        foreach ([true, false] as $mayAdd) {
            foreach ($lines as $line) {
                if ($line->mayAdd === $mayAdd) {
                    $this->take($line);
                }
            }
        }
        foreach ($this->guardians as $place => $guardians) {
            $this->folded[$place] = $this->folded[$place]->withGuardians(array_values($guardians));
        }
        $this->clearSharedAddresses();
        $seen = [];
        foreach ($this->folded as $place => $line) {
            $key = $line->key();
            $seen[$key] = ($seen[$key] ?? 0) + 1;
            if ($seen[$key] > 1) {
                $this->folded[$place] = $line->asNth($seen[$key]);
            }
        }
    }

    /** @return list<StudentLine> one for each student */
    public function students(): array
    {
        return array_values($this->folded);
    }

    /**
     * Rows that go with another one.
     *
     * @return array<string, string> their place to the place of the first
     */
    public function joined(): array
    {
        return $this->joined;
    }

    /** @return array<string, array{StudentLine, Problem, string}> */
    public function refused(): array
    {
        return $this->refused;
    }

    /**
     * A student signs in with an address of their own: one that a guardian or another student of the list has is none.
     */
    private function clearSharedAddresses(): void
    {
        $users = [];
        foreach ($this->folded as $line) {
            if ($line->email !== '') {
                $users[$line->email][] = $line;
            }
        }
        foreach ($this->folded as $place => $line) {
            $guardian =
                array_values(
                    array_filter(
                        $line->guardians,
                        fn(GuardianLine $g): bool => $line->email !== '' && $g->email === $line->email,
                    ),
                )[0] ?? null;
            $others = array_values(
                array_filter($users[$line->email] ?? [], fn(StudentLine $l): bool => $l->place() !== $place),
            );
            $says = match (true) {
                $line->email === '' => null,
                $guardian !== null
                    => "{$line->email} is the guardian’s too, and is taken as theirs alone. Give the student’s " .
                    'own address, or empty the cell.',
                $others !== [] => "{$line->email} stands beside " .
                    (count($others) + 1) .
                    ' students (' .
                    $others[0]->where() .
                    ' too), and is left out. Give each their own address; a parent’s belongs in the guardian’s column.',
                default => null,
            };
            if ($says !== null) {
                $this->folded[$place] = $line->withoutEmail(new Problem('student e-mail', $says, false));
            }
        }
    }

    private function take(StudentLine $line): void
    {
        $place = $line->place();
        if ($line->stopped()) {
            $this->folded[$place] = $line;

            return;
        }
        $name = NameKey::of($line->name->full());
        $first =
            $line->account !== ''
                ? $this->byAccount[$line->account] ?? null
                : ($line->studentNumber === ''
                    ? null
                    : $this->byNumber[StudentNumber::key($line->studentNumber)] ?? null);
        if ($first !== null && $name !== '' && !self::sameName($this->folded[$first], $line)) {
            $known = $this->folded[$first];
            $this->refuse(
                $line,
                'student number',
                ucfirst($known->where()) .
                    " gives the number $line->studentNumber to {$known->name->full()}. Correct one of the two.",
                "same number as {$known->where()}",
            );

            return;
        }
        foreach (
            $first !== null || $name === '' || $line->account !== '' ? [] : $this->byName[$name] ?? []
            as $candidate
        ) {
            if ($this->speaksOf($this->folded[$candidate], $line)) {
                $first = $candidate;
                break;
            }
        }
        if ($first === null) {
            $this->folded[$place] = $line;
            if ($line->studentNumber !== '') {
                $this->byNumber[StudentNumber::key($line->studentNumber)] ??= $place;
            }
            if ($line->account !== '') {
                $this->byAccount[$line->account] = $place;
            }
            if ($name !== '') {
                $this->byName[$name][] = $place;
            }

            return;
        }
        $this->join($first, $line);
    }

    private function join(string $first, StudentLine $line): void
    {
        $known = $this->folded[$first];
        foreach (
            ['birthDate' => 'birth date', 'grade' => 'grade', 'email' => 'e-mail', 'homeroom' => 'homeroom']
            as $property => $field
        ) {
            $a = $known->{$property};
            $b = $line->{$property};
            if ($a !== '' && $b !== '' && $a !== $b) {
                $this->refuse(
                    $line,
                    $field,
                    ucfirst($known->where()) .
                        " has the same student with another $field: $a, and $b here. Correct one of the two, " .
                        'or delete the row.',
                    "contradicts {$known->where()}",
                );

                return;
            }
        }
        $with = $known->with($line->withGuardians([]), [...$known->problems, ...$line->problems]);
        $said = $this->guardians[$first] ?? self::said($known);
        $more =
            count($with->sections) > count($known->sections) ||
            $with->homeroom !== $known->homeroom ||
            array_diff_key(self::said($line), $said) !== [] ||
            $with->birthDate !== $known->birthDate ||
            $with->grade !== $known->grade ||
            $with->email !== $known->email ||
            $with->studentNumber !== $known->studentNumber;
        if (!$more) {
            $this->refuse(
                $line,
                '',
                ucfirst($known->where()) . " says the same of {$known->name->full()}. Delete one of the two rows.",
                "stands twice, in {$known->where()} too",
            );

            return;
        }
        $this->folded[$first] = $with;
        if ($line->guardians !== []) {
            $this->guardians[$first] ??= $said;
            $this->guardians[$first] += self::said($line);
        }
        $this->joined[$line->place()] = $first;
        if ($with->studentNumber !== '') {
            $this->byNumber[StudentNumber::key($with->studentNumber)] ??= $first;
        }
    }

    /** @return array<string, GuardianLine> each guardian once */
    private static function said(StudentLine $line): array
    {
        $said = [];
        foreach ($line->guardians as $guardian) {
            $said[serialize($guardian)] ??= $guardian;
        }

        return $said;
    }

    private function refuse(StudentLine $line, string $column, string $message, string $why): void
    {
        $this->refused[$line->place()] = [$line, new Problem($column, $message), $why];
    }

    private static function sameName(StudentLine $a, StudentLine $b): bool
    {
        $words = fn(StudentLine $l): array => explode(' ', NameKey::of($l->name->full()));
        $x = $words($a);
        $y = $words($b);
        sort($x);
        sort($y);

        return $x === $y ||
            $a->name->full() === '' ||
            $b->name->full() === '' ||
            array_diff($x, $y) === [] ||
            array_diff($y, $x) === [];
    }

    /** Whether two rows of one name are of one student: nothing speaks against it, and something for it. */
    private function speaksOf(StudentLine $known, StudentLine $line): bool
    {
        if (
            ($known->studentNumber !== '' && $line->studentNumber !== '') ||
            ($known->account !== '' && $line->account !== '' && $known->account !== $line->account)
        ) {
            return false;
        }
        foreach (['birthDate', 'grade', 'email'] as $property) {
            if ($known->{$property} !== '' && $line->{$property} !== '' && $known->{$property} !== $line->{$property}) {
                return false;
            }
        }
        if (
            ($line->birthDate !== '' && $known->birthDate === $line->birthDate) ||
            ($line->email !== '' && $known->email === $line->email)
        ) {
            return true;
        }

        // By the name alone only from another sheet, from a list that adds nobody, or where the row repeats the other
        // wholly.
        return $known->sheet !== $line->sheet ||
            !$line->mayAdd ||
            ($known->studentNumber === $line->studentNumber &&
                $known->birthDate === $line->birthDate &&
                $known->grade === $line->grade &&
                $known->homeroom === $line->homeroom &&
                array_keys($this->guardians[$known->place()] ?? self::said($known)) === array_keys(self::said($line)));
    }
}
