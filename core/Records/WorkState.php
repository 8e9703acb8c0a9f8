<?php

declare(strict_types=1);

namespace Vantrel\Core\Records;

enum WorkState: string
{
    case Done = 'done';
    case Missing = 'missing';
    case Excused = 'excused';

    /** Of two accounts that turned out to be one person's: what either has handed in is handed in. */
    public function with(?self $other): self
    {
        return match (true) {
            $this === self::Done || $other === self::Done => self::Done,
            $this === self::Excused || $other === self::Excused => self::Excused,
            default => self::Missing,
        };
    }
}
