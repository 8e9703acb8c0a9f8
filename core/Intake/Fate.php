<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

/** What became of a cell of a sheet. One with contents always has a fate other than blank. */
enum Fate: string
{
    /** Its row, and what it says is in the plan. */
    case Read = 'read';
    /** Read otherwise than it is written. */
    case Mended = 'mended';
    /** It cannot be read, or may mean several things: a person is told, or asked. */
    case Asked = 'asked';
    /** A heading, or something that counts for other rows. */
    case Says = 'says';
    /** Nothing is made of it. */
    case Left = 'left';
    /** Empty, and read as what stands above. */
    case Above = 'above';
    case Blank = 'blank';

    /** Which of two counts, where a cell is read by several tables: the higher. */
    public function weight(): int
    {
        return match ($this) {
            self::Asked => 6,
            self::Mended => 5,
            self::Read => 4,
            self::Says => 3,
            self::Left => 2,
            self::Above => 1,
            self::Blank => 0,
        };
    }
}
