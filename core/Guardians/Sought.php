<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Names\PersonName;

/** A child as somebody without a letter writes it: the name, and the day it was born. */
final readonly class Sought
{
    /** @param  string  $birthDate YYYY-MM-DD */
    public function __construct(public PersonName $name, public string $birthDate) {}

    /**
     * The one student who bears that name and was born on that day. Two who might (twins of like names), or a day that
     * is another, are for a person to tell apart.
     *
     * @param  list<Candidate>  $candidates
     * @return string|null id
     */
    public function found(array $candidates): ?string
    {
        $likeness = new Likeness();
        $fits = array_values(
            array_filter(
                $candidates,
                fn(Candidate $c): bool => $c->subject->birthDate === $this->birthDate &&
                    $likeness->likeName($this->name, new PersonName($c->subject->given, $c->subject->family)),
            ),
        );

        return count($fits) === 1 ? $fits[0]->subject->id : null;
    }
}
