<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use InvalidArgumentException;

/**
 * How large letters must be to be read from a distance: a capital of height h seen from d is 2 atan(h / 2d) high in the
 * eye. 22 minutes of arc are read with ease and 16 are the least (ISO 9241-303, from memory of it).
 */
final class Legibility
{
    public const MINUTES_OF_ARC = 22.0;

    /** Height of a capital over the size of the type, in Atkinson Hyperlegible Mono (its OS/2 table: 668 of 1,000). */
    public const CAP_HEIGHT = 0.668;

    /** Width of a symbol over the size of the type, in the same face (its hmtx table: 632 of 1,000). */
    public const ADVANCE = 0.632;

    /** Share of the picture's width that a code fills on the wall. */
    public const FILLED = 0.88;

    /**
     * @param  float  $metres from the eye
     * @return float millimetres that a capital must be high
     */
    public static function capitalHeight(float $metres): float
    {
        if ($metres <= 0) {
            throw new InvalidArgumentException('A distance is more than 0.');
        }

        return 2000 * $metres * tan(self::angle() / 2);
    }

    /** Metres from which a capital of so many millimetres is read. */
    public static function distance(float $millimetres): float
    {
        return $millimetres / 2000 / tan(self::angle() / 2);
    }

    /** Size of the type as a share of the picture's width, for a line of so many symbols that fills the wall. */
    public static function typeSize(int $symbols): float
    {
        if ($symbols < 1) {
            throw new InvalidArgumentException('A line has at least one symbol.');
        }

        return self::FILLED / ($symbols * self::ADVANCE);
    }

    /** Metres from which a code of so many symbols is read on a picture of so many metres. */
    public static function codeReadableFrom(int $symbols, float $pictureMetres): float
    {
        return self::distance(1000 * $pictureMetres * self::typeSize($symbols) * self::CAP_HEIGHT);
    }

    private static function angle(): float
    {
        return deg2rad(self::MINUTES_OF_ARC / 60);
    }
}
