<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\Accounts\Way;

/** What is set on one login card. */
final readonly class Card
{
    /** @param  string  $passphrase '' where the person has an own password */
    public function __construct(
        public string $name,
        public string $place,
        public string $userName,
        public string $passphrase,
        public string $link,
        public Way $way,
    ) {}
}
