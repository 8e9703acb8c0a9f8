<?php

declare(strict_types=1);

namespace Vantrel\Core\PrintRoom;

use Vantrel\Core\Plan\Refusal;

/**
 * The ready layouts, and one's own. Labels are the sheets that shops sell: 21 of 63.5 x 38.1 mm and 24 of 70 x 37 mm to
 * A4, 30 of 2 5/8 x 1 in to Letter (common practice, no source); a card for a holder is ID-1 of ISO/IEC 7810, 85.60 x
 * 53.98 mm.
 */
enum CardLayout: string
{
    case A4x8 = 'a4-8';
    case A4 = 'cards-a4';
    case A4x12 = 'a4-12';
    case Letterx8 = 'letter-8';
    case Letter = 'cards-letter';
    case LabelsA4x21 = 'labels-a4-21';
    case LabelsA4x24 = 'labels-a4-24';
    case LabelsLetterx30 = 'labels-letter-30';
    case HolderA4 = 'holder-a4';
    case HolderLetter = 'holder-letter';
    case BookmarkA4 = 'bookmark-a4';
    case BookmarkLetter = 'bookmark-letter';
    case StripA4 = 'strip-a4';
    case StripLetter = 'strip-letter';
    case Own = 'own';

    private const INCH = 25.4;

    /**
     * @param  OwnSheet|null  $own where the layout is one's own
     *
     * @throws Refusal where one's own is not said, or does not fit
     */
    public function sheet(?OwnSheet $own = null): CardSheet
    {
        return match ($this) {
            self::A4x8 => CardSheet::centred('a4', 2, 4, 95.0, 68.0),
            self::A4 => CardSheet::centred('a4', 2, 5, 90.0, 54.0),
            self::A4x12 => CardSheet::centred('a4', 3, 4, 64.0, 70.0),
            self::Letterx8 => CardSheet::centred('letter', 2, 4, 95.0, 64.0),
            self::Letter => CardSheet::centred('letter', 2, 5, 90.0, 53.0),
            self::LabelsA4x21 => CardSheet::centred('a4', 3, 7, 63.5, 38.1, 2.54),
            // They reach to the edge of the paper; what stands on them keeps away from it.
            self::LabelsA4x24 => CardSheet::centred('a4', 3, 8, 70.0, 37.0, margin: 0.0),
            self::LabelsLetterx30 => CardSheet::centred(
                'letter',
                3,
                10,
                2.625 * self::INCH,
                self::INCH,
                0.125 * self::INCH,
                margin: 4.7,
            ),
            self::HolderA4 => CardSheet::centred('a4', 2, 5, 85.6, 53.98),
            self::HolderLetter => CardSheet::centred('letter', 2, 4, 85.6, 53.98),
            self::BookmarkA4 => CardSheet::centred('a4', 4, 2, 50.0, 140.0),
            self::BookmarkLetter => CardSheet::centred('letter', 4, 2, 50.0, 130.0),
            self::StripA4 => CardSheet::centred('a4-across', 1, 7, 250.0, 28.0),
            self::StripLetter => CardSheet::centred('letter-across', 1, 7, 250.0, 28.0),
            self::Own => $own?->sheet() ?? throw new Refusal('Say how large the cards are.', 'own'),
        };
    }

    /** "A4, 10 cards of 90 × 54 mm", where one is chosen. */
    public function label(): string
    {
        if ($this === self::Own) {
            return 'Your own';
        }
        $sheet = $this->sheet();
        $paper = str_contains($this->value, 'letter') ? 'Letter' : 'A4';
        $what = match ($this) {
            self::LabelsA4x21, self::LabelsA4x24, self::LabelsLetterx30 => 'labels',
            self::HolderA4, self::HolderLetter => 'cards for a holder',
            self::BookmarkA4, self::BookmarkLetter => 'bookmarks',
            self::StripA4, self::StripLetter => 'strips',
            default => 'cards',
        };
        $mm = fn(float $length): string => rtrim(rtrim(number_format($length, 1, '.', ''), '0'), '.');

        return "$paper, {$sheet->places()} $what of {$mm($sheet->cardWidth)} × {$mm($sheet->cardHeight)} mm";
    }

    /** Whether they come cut already: nothing is drawn for a knife. */
    public function isCut(): bool
    {
        return in_array($this, [self::LabelsA4x21, self::LabelsA4x24, self::LabelsLetterx30], true);
    }
}
