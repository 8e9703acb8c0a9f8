<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/** A line of text on a card, or two of them: where it stands, in mm from the card's top left corner, and how large. */
final readonly class FaceLine
{
    /**
     * @param  float  $size in points, at most
     * @param  int  $lines one, or two where it is set over two
     */
    public function __construct(
        public FaceText $what,
        public float $x,
        public float $y,
        public float $width,
        public float $size,
        public int $lines = 1,
    ) {}

    /** Height in mm. */
    public function height(): float
    {
        return $this->lines * self::leading($this->size);
    }

    /** Distance of two lines of a size in points, in mm. */
    public static function leading(float $size): float
    {
        return ($size * 25.4 * 1.2) / 72;
    }
}
