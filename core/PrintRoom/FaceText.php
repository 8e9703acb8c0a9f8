<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/** What is written on a card, beside the square. */
enum FaceText: string
{
    case Name = 'name';
    case Place = 'place';
    case UserLabel = 'user_label';
    case UserName = 'user_name';
    case SecretLabel = 'secret_label';
    case Secret = 'secret';
    case School = 'school';
    case Address = 'address';

    /** Type size in points, where there is room. */
    public function size(): float
    {
        return match ($this) {
            self::Name => 14.0,
            self::Place => 9.0,
            self::UserName, self::Secret => 12.0,
            default => 8.0,
        };
    }

    /** Whether nobody gets in without it: it is set smaller, or over two lines, and asked about, never left out. */
    public function matters(): bool
    {
        return in_array($this, [self::Name, self::UserName, self::Secret], true);
    }
}
