<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Plan\Refusal;

/** A layout of one's own: what a sheet of labels says on its wrapper. Lengths in millimetres. */
final readonly class OwnSheet
{
    /** What is smaller holds no square that a camera reads, and no line of text beside it. */
    public const LEAST_WIDTH = 45.0;

    public const LEAST_HEIGHT = 25.0;

    /**
     * @param  string  $paper of {@see CardSheet::PAPERS}
     * @param  float  $margin least distance from the edge of the page
     * @param  bool  $cut whether they come cut already
     */
    public function __construct(
        public string $paper,
        public int $columns,
        public int $rows,
        public float $width,
        public float $height,
        public float $gapX = 0.0,
        public float $gapY = 0.0,
        public float $margin = 5.0,
        public bool $cut = false,
    ) {}

    /** @throws Refusal where it does not fit, saying by how much */
    public function sheet(): CardSheet
    {
        foreach ([['wide', $this->width, self::LEAST_WIDTH], ['high', $this->height, self::LEAST_HEIGHT]] as $side) {
            [$way, $is, $least] = $side;
            if ($is < $least) {
                throw new Refusal(
                    sprintf(
                        'A card is at least %.0f mm %s, for a square that a camera reads and words beside it: ' .
                            '%.1f mm are missing.',
                        $least,
                        $way,
                        $least - $is,
                    ),
                    $way === 'wide' ? 'width' : 'height',
                );
            }
        }

        return CardSheet::centred(
            $this->paper,
            $this->columns,
            $this->rows,
            $this->width,
            $this->height,
            $this->gapX,
            $this->gapY,
            $this->margin,
        );
    }
}
