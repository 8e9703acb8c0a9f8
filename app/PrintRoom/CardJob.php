<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\PrintRoom\Paper;

/** Cards to print. */
final readonly class CardJob
{
    /**
     * @param  bool  $lost whether earlier cards are lost and must stop working
     * @param  bool  $shorten whether a name that does not fit may stand with a letter for the family name
     */
    public function __construct(
        public Whom $whom,
        public Paper $paper,
        public bool $lost = false,
        public bool $shorten = false,
    ) {}
}
