<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Platform\Print\PrintedPages;
use Vantrel\Core\PrintRoom\CardFace;

/**
 * What to do with a card, for a child who does not read yet: take the tablet, point it at the square, and the own name
 * comes up. In lines, so that a copy of a copy still shows it.
 */
final class CardPictures
{
    /** Width of one picture and of an arrow between two, in mm. */
    private const STEP = 9.0;

    private const ARROW = 5.0;

    public static function draw(PrintedPages $pdf, float $x, float $y): void
    {
        $h = CardFace::PICTURES - 0.6;
        // A tablet, its camera above the screen.
        $pdf->frame($x + 1.2, $y, 6.6, $h, 0.35);
        $pdf->frame($x + 2.0, $y + 1.6, 5.0, $h - 2.6, 0.2);
        $pdf->frame($x + 4.2, $y + 0.55, 0.6, 0.5, 0.2);
        self::arrow($pdf, $x + self::STEP, $y + $h / 2);
        // The square, with its three corners.
        $left = $x + self::STEP + self::ARROW + 0.4;
        $pdf->frame($left, $y + 0.3, $h - 0.6, $h - 0.6, 0.2);
        foreach ([[0.8, 1.1], [4.9, 1.1], [0.8, 5.2]] as [$dx, $dy]) {
            $pdf->frame($left + $dx, $y + $dy, 2.0, 2.0, 0.5);
        }
        $pdf->frame($left + 5.2, $y + 5.5, 1.3, 1.3, 0.3);
        self::arrow($pdf, $x + 2 * self::STEP + self::ARROW, $y + $h / 2);
        // The screen, with a name and what is in it.
        $right = $x + 2 * (self::STEP + self::ARROW);
        $pdf->frame($right, $y + 0.8, 11.0, $h - 1.6, 0.35);
        $pdf->stroke($right + 1.4, $y + 2.8, $right + 6.4, $y + 2.8, 0.7);
        $pdf->stroke($right + 1.4, $y + 4.6, $right + 9.4, $y + 4.6, 0.25);
        $pdf->stroke($right + 1.4, $y + 6.0, $right + 8.0, $y + 6.0, 0.25);
    }

    private static function arrow(PrintedPages $pdf, float $x, float $y): void
    {
        $pdf->stroke($x + 0.8, $y, $x + 4.0, $y, 0.3);
        $pdf->stroke($x + 2.8, $y - 1.1, $x + 4.0, $y, 0.3);
        $pdf->stroke($x + 2.8, $y + 1.1, $x + 4.0, $y, 0.3);
    }
}
