<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Records\PersonState;

/** What the problems of a student's account are judged by. */
final readonly class AccountFacts
{
    /**
     * @param  bool  $placed whether an enrollment in an open section holds today
     * @param  bool  $signedIn whether anybody has signed in with one of the user names, ever
     * @param  bool  $guarded whether a guardian is on record, connected or not
     * @param  bool  $connected whether a guardian is connected
     * @param  bool  $reached whether a guardian on record has an address or a telephone
     * @param  bool  $carded whether a card works
     * @param  bool  $lost whether a card was lost
     * @param  bool  $outside whether the own address is in none of the mail domains that the school has named
     * @param  bool  $numberTwice whether another student of the school has the number, but for zeros before it
     * @param  string|null  $born YYYY-MM-DD
     * @param  string|null  $grade its code
     * @param  string  $today YYYY-MM-DD, at the school
     */
    public function __construct(
        public PersonState $state,
        public bool $placed,
        public bool $signedIn,
        public bool $guarded,
        public bool $connected,
        public bool $reached,
        public bool $carded,
        public bool $lost,
        public bool $outside,
        public bool $numberTwice,
        public ?string $born,
        public ?string $grade,
        public string $today,
    ) {}
}
