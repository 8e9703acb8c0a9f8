<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Plan\Refusal;

/** Where cards stand on a sheet. All lengths in millimetres, from the top left corner of the page. */
final readonly class CardSheet
{
    /** Paper sizes: ISO 216, and ANSI/ASME Y14.1 for Letter (8.5 x 11 inches of 25.4 mm). */
    public const PAPERS = [
        'a4' => [210.0, 297.0],
        'letter' => [215.9, 279.4],
        'a4-across' => [297.0, 210.0],
        'letter-across' => [279.4, 215.9],
    ];

    private const TOLERANCE = 0.005;

    private function __construct(
        public float $pageWidth,
        public float $pageHeight,
        public float $left,
        public float $top,
        public int $columns,
        public int $rows,
        public float $cardWidth,
        public float $cardHeight,
        public float $gapX,
        public float $gapY,
    ) {}

    /**
     * A sheet with the cards set in the middle of the page.
     *
     * @param  float  $margin least distance from the edge of the page, for printers that cannot print to it
     *
     * @throws Refusal where the cards do not fit, saying by how much
     */
    public static function centred(
        string $paper,
        int $columns,
        int $rows,
        float $cardWidth,
        float $cardHeight,
        float $gapX = 0.0,
        float $gapY = 0.0,
        float $margin = 5.0,
    ): self {
        [$width, $height] =
            self::PAPERS[$paper] ??
            throw new Refusal("“{$paper}” is no paper size; use a4 or letter, across or not.", 'paper');
        if ($columns < 1 || $rows < 1 || $cardWidth <= 0 || $cardHeight <= 0 || $gapX < 0 || $gapY < 0 || $margin < 0) {
            throw new Refusal('A sheet has at least one row and one column of cards with a size above 0.');
        }
        $needX = $columns * $cardWidth + ($columns - 1) * $gapX;
        $needY = $rows * $cardHeight + ($rows - 1) * $gapY;
        foreach ([['wide', $needX, $width], ['high', $needY, $height]] as [$way, $need, $have]) {
            $room = $have - 2 * $margin;
            if ($need > $room + self::TOLERANCE) {
                throw new Refusal(
                    sprintf(
                        'The cards are %.1f mm too %s for the page: they need %.1f mm, and between the ' .
                            'margins there are %.1f mm.',
                        $need - $room,
                        $way,
                        $need,
                        $room,
                    ),
                );
            }
        }

        return new self(
            $width,
            $height,
            ($width - $needX) / 2,
            ($height - $needY) / 2,
            $columns,
            $rows,
            $cardWidth,
            $cardHeight,
            $gapX,
            $gapY,
        );
    }

    public function places(): int
    {
        return $this->columns * $this->rows;
    }

    public function sheets(int $cards): int
    {
        return intdiv($cards + $this->places() - 1, $this->places());
    }

    /**
     * Top left corner of a place, places counted along the rows from 0.
     *
     * @return array{float, float}
     */
    public function corner(int $place): array
    {
        return [
            $this->left + ($place % $this->columns) * ($this->cardWidth + $this->gapX),
            $this->top + intdiv($place, $this->columns) * ($this->cardHeight + $this->gapY),
        ];
    }

    /** The place on the back of a sheet, turned over on its long side, that lies behind the given place. */
    public function behind(int $place): int
    {
        $row = intdiv($place, $this->columns);

        return $row * $this->columns + $this->columns - 1 - ($place % $this->columns);
    }
}
