<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

/** The ready layouts: ten cards to a page, on either paper. */
enum CardLayout: string
{
    case A4 = 'cards-a4';
    case Letter = 'cards-letter';

    public function sheet(): CardSheet
    {
        return match ($this) {
            self::A4 => CardSheet::centred('a4', 2, 5, 90.0, 54.0),
            self::Letter => CardSheet::centred('letter', 2, 5, 90.0, 53.0),
        };
    }

    /** "A4, 10 cards of 90 × 54 mm", where one is chosen. */
    public function label(): string
    {
        $sheet = $this->sheet();
        $paper = $this === self::A4 ? 'A4' : 'Letter';

        return "$paper, {$sheet->places()} cards of {$sheet->cardWidth} × {$sheet->cardHeight} mm";
    }
}
