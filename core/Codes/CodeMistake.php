<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

/** What is wrong with something typed as a join code. Says nothing about which codes exist. */
enum CodeMistake: string
{
    case Empty = 'empty';
    case TooShort = 'too_short';
    case TooLong = 'too_long';
    case ForeignSymbol = 'foreign_symbol';
    case Check = 'check';

    /** The sentence to show, in words a child can act on; `{{symbol}}` is the place of the foreign one. */
    public function sentence(): string
    {
        return match ($this) {
            self::Empty => 'No code has been typed yet.',
            self::TooShort => 'That is too short for a code. Look for the part that is missing.',
            self::TooLong => 'That is too long for a code. Look for a letter typed twice.',
            self::ForeignSymbol => 'Codes never have “{{symbol}}” in them. Look at that place again.',
            self::Check => 'One letter is wrong, or two changed places. Compare it letter by letter.',
        };
    }
}
