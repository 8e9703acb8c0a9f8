<?php

declare(strict_types=1);

namespace App\Door;

use App\Platform\Print\Face;
use App\Platform\Print\PrintedPages;
use Vantrel\Core\Codes\QrSymbol;
use Vantrel\Core\PrintRoom\CardSheet;

/**
 * The room pass as a poster: one large QR, what to do in three short lines, and whom it is not for. No filled areas.
 */
final class RoomPoster
{
    /** Side of the QR symbol in mm: read by a tablet's camera from two arm's lengths. */
    private const QR = 90.0;

    private const MARGIN = 22.0;

    /** @return string the PDF's bytes */
    public static function of(
        string $section,
        string $school,
        string $link,
        string $hours,
        bool $pictures,
        bool $letter,
    ): string {
        [$w, $h] = CardSheet::PAPERS[$letter ? 'letter' : 'a4'];
        $pdf = new PrintedPages($w, $h, "Room pass, $section", $school);
        $pdf->page();
        $width = $w - 2 * self::MARGIN;
        $line = function (Face $face, float $size, string $text, float $y, string $align = 'L', float $indent = 0) use (
            $pdf,
            $width,
        ): void {
            $size = $pdf->fitting($text, $face, $size, 10, $width - $indent) ?? 10.0;
            $pdf->put($face, $size, $text, self::MARGIN + $indent, $y, $width - $indent, $align);
        };
        $line(Face::Sans, 12, $school, 20);
        $line(Face::Serif, 44, $section, 27);
        $pdf->stroke(self::MARGIN, 48, $w - self::MARGIN, 48, 0.3);
        $pdf->square(QrSymbol::of($link), ($w - self::QR) / 2, 64, self::QR);
        $steps = [
            'Point the camera of a school device at the square.',
            'Tap your name.',
            ...$pictures ? ['Tap your three pictures.'] : [],
            'When you are done: tap “I am done”.',
        ];
        foreach ($steps as $i => $step) {
            $line(Face::Sans, 19, (string) ($i + 1), 172 + 11 * $i);
            $line(Face::Sans, 19, $step, 172 + 11 * $i, 'L', 9);
        }
        $y = $h - 44;
        $pdf->frame(self::MARGIN, $y, $width, 24, 0.8);
        $line(Face::Serif, 15, 'For this room only: not for families, not for photographs', $y + 4, 'C');
        $line(Face::Sans, 11, "Whoever has it sees the first names of this class. $hours", $y + 14, 'C');

        return $pdf->bytes();
    }
}
