<?php

declare(strict_types=1);

namespace Vantrel\Core\CommandBox;

/** What was typed, taken apart; '' for a part that was left out. Which person or section is meant is not known yet. */
final readonly class Said
{
    /**
     * @param  string  $what whom or which section it is about
     * @param  string  $other the account it is merged with, or the section somebody comes into
     * @param  string  $from the section somebody leaves
     * @param  string|null  $day YYYY-MM-DD; null where one was named that cannot be read
     */
    public function __construct(
        public Verb $verb,
        public string $what = '',
        public string $other = '',
        public string $from = '',
        public ?string $day = '',
    ) {}
}
