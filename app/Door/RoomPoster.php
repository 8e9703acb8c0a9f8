<?php

declare(strict_types=1);

namespace App\Door;

use TCPDF;

/**
 * The room pass as a poster: one large QR, what to do in three short lines, and whom it is not for. No filled areas.
 */
final class RoomPoster
{
    private const SERIF = 'sourceserif4semib';

    private const SANS = 'atkinsonhyperlegiblenext';

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
        [$w, $h] = $letter ? [215.9, 279.4] : [210.0, 297.0];
        $pdf = new TCPDF('P', 'mm', [$w, $h], true, 'UTF-8', false);
        $pdf->setPrintHeader(false);
        $pdf->setPrintFooter(false);
        $pdf->setAutoPageBreak(false);
        $pdf->setMargins(self::MARGIN, self::MARGIN, self::MARGIN);
        $pdf->setCellPadding(0);
        $pdf->setFontSubsetting(true);
        $pdf->setTitle("Room pass, $section");
        $pdf->setCreator('Vantrel');
        foreach ([self::SERIF, self::SANS] as $font) {
            $pdf->AddFont($font, '', storage_path("fonts/$font.php"));
        }
        $pdf->AddPage();
        $width = $w - 2 * self::MARGIN;
        $text = function (
            string $font,
            float $size,
            string $line,
            float $y,
            string $align = 'L',
            float $indent = 0,
        ) use ($pdf, $width): void {
            $pdf->SetFont($font, '', $size);
            while ($size > 10 && $pdf->GetStringWidth($line) > $width - $indent) {
                $pdf->SetFont($font, '', $size -= 1);
            }
            $pdf->SetXY(self::MARGIN + $indent, $y);
            $pdf->Cell($width - $indent, $size * 0.42, $line, 0, 0, $align, false, '', 0, false, 'T', 'T');
        };
        $text(self::SANS, 12, $school, 20);
        $text(self::SERIF, 44, $section, 27);
        $pdf->SetLineStyle(['width' => 0.3, 'color' => [0, 0, 0]]);
        $pdf->Line(self::MARGIN, 48, $w - self::MARGIN, 48);
        $pdf->write2DBarcode(
            $link,
            'QRCODE,M',
            ($w - self::QR) / 2,
            64,
            self::QR,
            self::QR,
            ['border' => false, 'padding' => 0, 'fgcolor' => [0, 0, 0], 'bgcolor' => false],
            'N',
        );
        $steps = [
            'Point the camera of a school device at the square.',
            'Tap your name.',
            ...$pictures ? ['Tap your three pictures.'] : [],
            'When you are done: tap “I am done”.',
        ];
        foreach ($steps as $i => $step) {
            $text(self::SANS, 19, (string) ($i + 1), 172 + 11 * $i);
            $text(self::SANS, 19, $step, 172 + 11 * $i, 'L', 9);
        }
        $y = $h - 44;
        $pdf->SetLineStyle(['width' => 0.8, 'color' => [0, 0, 0]]);
        $pdf->Rect(self::MARGIN, $y, $width, 24);
        $text(self::SERIF, 15, 'For this room only: not for families, not for photographs', $y + 4, 'C');
        $text(self::SANS, 11, "Whoever has it sees the first names of this class. $hours", $y + 14, 'C');

        return (string) $pdf->Output('', 'S');
    }
}
