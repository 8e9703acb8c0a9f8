<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Closure;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Codes\Randomness;

/** Where the secrets of cards come from, and how they are kept. */
final readonly class CardSecrets
{
    /**
     * @param  Randomness  $random of the badges
     * @param  Closure(string): string  $seal encrypts a passphrase for the database
     */
    public function __construct(public PassphraseSheet $sheet, public Randomness $random, public Closure $seal) {}
}
