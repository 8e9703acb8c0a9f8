<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Records\SignIn;

/** Whose cards to print. */
final readonly class CardWish
{
    /**
     * @param  list<SignIn>  $signIns in the order of the cards
     * @param  bool  $lost whether the cards printed before are lost
     * @param  string  $what in words, for the ledger: "3 Heron"
     */
    public function __construct(public array $signIns, public bool $lost, public string $what) {}
}
