<?php

declare(strict_types=1);

namespace Vantrel\Core\CommandBox;

/** What can be said to be done, in the one box. */
enum Verb: string
{
    case Cards = 'cards';
    case Code = 'code';
    case Move = 'move';
    case Place = 'place';
    case Merge = 'merge';
    case Undo = 'undo';
    case AsOf = 'as_of';
    case Archive = 'archive';

    /** What it looks like said whole: the cure where a part of it is missing. */
    public function example(): string
    {
        return match ($this) {
            self::Cards => 'cards 7B',
            self::Code => 'code 7B',
            self::Move => 'move 020417 to 7C',
            self::Place => 'place 020417 in 7C',
            self::Merge => 'merge 020417 and 020418',
            self::Undo => 'undo last',
            self::AsOf => '7B as of 1 sep',
            self::Archive => 'archive 7B',
        };
    }
}
