<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Platform\Print\Face;
use App\Platform\Print\PrintedPages;
use Vantrel\Core\Codes\QrSymbol;
use Vantrel\Core\PrintRoom\CardSheet;
use Vantrel\Core\PrintRoom\Legibility;

/** Sets codes to hang up and to hand out. Lines only, no filled areas. Lengths in mm. */
final class WallPdf
{
    private const SIDE = 16.0;

    private const LEAST = 8.0;

    private const SQUARE = 62.0;

    private const STEPS = [
        'Point a camera at the square, or open the address and type the code.',
        'Have you a card or a password? Sign in. If not, type your name as the school has it.',
        'You are in the section, or your teacher lets you in.',
    ];

    /**
     * A page each, across: the code as large as the page lets it be, and how far it is read.
     *
     * @param  list<OpenCode>  $codes
     * @return string the PDF's bytes
     */
    public static function posters(array $codes, string $paper): string
    {
        [$width, $height] = CardSheet::PAPERS["$paper-across"];
        $pdf = new PrintedPages($width, $height, 'Codes for the wall', $codes[0]->school ?? '');
        $inner = $width - 2 * self::SIDE;
        foreach ($codes as $code) {
            $pdf->page();
            $pdf->put(Face::Sans, 14, $code->school, self::SIDE, 14, $inner);
            $name = $pdf->fitting($code->section, Face::Serif, 40, 12, $inner) ?? 12.0;
            $pdf->put(Face::Serif, $name, $code->section, self::SIDE, 21, $inner);
            $pdf->stroke(self::SIDE, 40, $width - self::SIDE, 40, 0.3);
            // The type that fills the line, in points; its capitals by the face's own proportion.
            $size = (Legibility::typeSize(mb_strlen($code->written)) * $inner * 72) / 25.4 / Legibility::FILLED;
            $capital = ($size * 25.4 * Legibility::CAP_HEIGHT) / 72;
            $pdf->put(Face::Mono, $size, $code->written, self::SIDE, 44, $inner, 'C');
            $top = 44 + ($size * 25.4 * 1.15) / 72;
            $pdf->square(QrSymbol::of($code->link), $width - self::SIDE - self::SQUARE, $top, self::SQUARE);
            $room = $inner - self::SQUARE - 16;
            $at = $pdf->fitting($code->place, Face::Bold, 26, 12, $room) ?? 12.0;
            $pdf->put(Face::Bold, $at, $code->place, self::SIDE, $top, $room);
            $y = $top + 16;
            foreach (self::STEPS as $i => $step) {
                $pdf->put(Face::Bold, 17, (string) ($i + 1), self::SIDE, $y, 8);
                $y = $pdf->paragraph(Face::Sans, 17, $step, self::SIDE + 9, $y, $room - 9) + 2;
            }
            $sum = sprintf(
                'The capitals are %.0f mm high and are read with ease from %.1f m: that is %.0f minutes of arc in the eye.',
                $capital,
                Legibility::distance($capital),
                Legibility::MINUTES_OF_ARC,
            );
            $pdf->put(Face::Sans, 9, $sum, self::SIDE, $height - 14, $inner);
        }

        return $pdf->bytes();
    }

    /**
     * So many slips for each section, each section on sheets of its own.
     *
     * @param  list<OpenCode>  $codes
     * @return string the PDF's bytes
     */
    public static function slips(array $codes, string $paper, int $copies): string
    {
        $sheet = CardSheet::centred($paper, 2, 6, 92.0, $paper === 'letter' ? 42.0 : 45.0);
        $pdf = new PrintedPages($sheet->pageWidth, $sheet->pageHeight, 'Slips with codes', $codes[0]->school ?? '');
        foreach ($codes as $code) {
            $symbol = QrSymbol::of($code->link);
            for ($slip = 0; $slip < $copies; $slip++) {
                $place = $slip % $sheet->places();
                if ($place === 0) {
                    $pdf->page();
                    self::cuts($pdf, $sheet);
                }
                self::slip($pdf, $sheet, $code, $symbol, ...$sheet->corner($place));
            }
        }

        return $pdf->bytes();
    }

    private static function slip(
        PrintedPages $pdf,
        CardSheet $sheet,
        OpenCode $code,
        QrSymbol $symbol,
        float $x,
        float $y,
    ): void {
        $side = 26.0;
        $room = $sheet->cardWidth - $side - 14;
        $pdf->square($symbol, $x + $sheet->cardWidth - $side - 5, $y + ($sheet->cardHeight - $side) / 2, $side);
        $name = $pdf->fitting($code->section, Face::Serif, 14, self::LEAST, $room);
        if ($name !== null) {
            $pdf->put(Face::Serif, $name, $code->section, $x + 5, $y + 5, $room);
        } else {
            $pdf->paragraph(Face::Serif, self::LEAST, $code->section, $x + 5, $y + 4, $room, leading: 1.15);
        }
        $pdf->put(Face::Sans, 8, 'Code', $x + 5, $y + 13, $room);
        $size = $pdf->fitting($code->written, Face::Mono, 18, 10, $room) ?? 10.0;
        $pdf->put(Face::Mono, $size, $code->written, $x + 5, $y + 16.5, $room);
        $at = $pdf->fitting($code->place, Face::Sans, 9, 8, $room);
        if ($at !== null) {
            $pdf->put(Face::Sans, $at, $code->place, $x + 5, $y + 26, $room);
        } else {
            $pdf->paragraph(Face::Sans, 8, $code->place, $x + 5, $y + 25, $room, leading: 1.15);
        }
        $school = $pdf->fitting($code->school, Face::Sans, 8, 8, $room);
        if ($school !== null) {
            $pdf->put(Face::Sans, $school, $code->school, $x + 5, $y + 35, $room);
        }
    }

    /** Dashed lines to cut along, through the whole page. */
    private static function cuts(PrintedPages $pdf, CardSheet $sheet): void
    {
        for ($column = 0; $column <= $sheet->columns; $column++) {
            $x = $sheet->left + $column * $sheet->cardWidth;
            $pdf->stroke($x, $sheet->top, $x, $sheet->pageHeight - $sheet->top, 0.1, '1.5 1.5');
        }
        for ($row = 0; $row <= $sheet->rows; $row++) {
            $y = $sheet->top + $row * $sheet->cardHeight;
            $pdf->stroke($sheet->left, $y, $sheet->pageWidth - $sheet->left, $y, 0.1, '1.5 1.5');
        }
    }
}
