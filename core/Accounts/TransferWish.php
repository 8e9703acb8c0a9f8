<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\TransferKind;

/**
 * What a school asks another for.
 *
 * @phpstan-import-type Listed from TransferRequests
 */
final readonly class TransferWish
{
    /**
     * @param  Person  $person as the school asked knows them
     * @param  Listed  $said by the list of the school that asks
     * @param  string|null  $askedBy id of a person, null where nobody signed in asked
     */
    public function __construct(
        public Person $person,
        public string $toSchoolId,
        public TransferKind $kind,
        public array $said,
        public ?string $askedBy,
    ) {}
}
