<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;

/** A guardian the school has on record for a student, and what ties them. */
final readonly class OnRecord
{
    public function __construct(public Person $person, public Guardianship $link) {}

    /**
     * The ties that the account somebody asks from has already.
     *
     * @param  list<self>  $record
     * @return list<Guardianship>
     */
    public static function linksOf(Claimant $who, array $record): array
    {
        $own = array_filter($record, fn(self $o): bool => $o->person->id === $who->person?->id);

        return array_values(array_map(fn(self $o): Guardianship => $o->link, $own));
    }
}
