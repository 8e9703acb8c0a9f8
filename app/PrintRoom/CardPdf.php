<?php

declare(strict_types=1);

namespace App\PrintRoom;

use Vantrel\Core\Accounts\Way;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\CardSheet;

/**
 * Sets login cards on sheets: name and section, user name, passphrase, where to go, and the QR of the badge with its
 * quiet zone. Hairline crop marks outside the cards, no filled areas, no text under 8 pt.
 */
final class CardPdf
{
    private const SERIF = 'sourceserif4semib';

    private const SANS = 'atkinsonhyperlegiblenext';

    private const MONO = 'atkinsonhyperlegiblemonosemib';

    /** Side of the QR symbol in mm; its quiet zone of four modules comes on top. */
    private const QR = 24.0;

    private const PAD = 5.0;

    private CardDocument $pdf;

    private function __construct(
        private readonly CardSheet $sheet,
        private readonly string $school,
        private readonly string $address,
    ) {
        $this->pdf = new CardDocument($sheet->pageWidth, $sheet->pageHeight);
        $this->pdf->setAutoPageBreak(false);
        $this->pdf->setMargins(0, 0, 0);
        $this->pdf->setCellPadding(0);
        $this->pdf->setFontSubsetting(true);
        $this->pdf->setTitle('Login cards');
        $this->pdf->setAuthor($school);
        $this->pdf->setCreator('Vantrel');
        foreach ([self::SERIF, self::SANS, self::MONO] as $font) {
            $this->pdf->AddFont($font, '', storage_path("fonts/$font.php"));
        }
    }

    /**
     * @param  list<Card>  $cards
     * @param  string  $address where to sign in, without the scheme
     * @return string the PDF's bytes
     */
    public static function of(array $cards, CardSheet $sheet, CardOrder $order, string $school, string $address): string
    {
        $self = new self($sheet, $school, $address);
        foreach ($order->sheets(count($cards), $sheet->places()) as $places) {
            $self->pdf->AddPage();
            $self->cropMarks();
            foreach ($places as $place => $card) {
                if ($card !== null) {
                    $self->card($cards[$card], ...$sheet->corner($place));
                }
            }
        }

        return $self->pdf->Output('', 'S');
    }

    private function card(Card $card, float $x, float $y): void
    {
        $pdf = $this->pdf;
        $w = $this->sheet->cardWidth;
        $text = $w - self::QR - 3 * self::PAD;
        $this->line(self::SERIF, 14, $card->name, $x + self::PAD, $y + self::PAD, $text, 10.5);
        $this->line(self::SANS, 9, $card->place, $x + self::PAD, $y + self::PAD + 6.2, $text, 8);
        $pdf->SetLineStyle(['width' => 0.15, 'color' => [0, 0, 0]]);
        $pdf->Line($x + self::PAD, $y + 17.6, $x + self::PAD + $text, $y + 17.6);
        $this->line(self::SANS, 8, 'User name', $x + self::PAD, $y + 19.0, $text, 8);
        $this->line(self::MONO, 12, $card->userName, $x + self::PAD, $y + 22.3, $text, 8);
        // What the school's way of signing in does not take is not printed either.
        $typed = $card->way === Way::Passphrase || $card->way === Way::Own;
        $this->line(
            self::SANS,
            8,
            !$typed ? 'To sign in' : ($card->passphrase === '' ? 'Password' : 'Passphrase'),
            $x + self::PAD,
            $y + 29.6,
            $text,
            8,
        );
        if (!$typed) {
            $this->line(
                self::SANS,
                10,
                $card->way === Way::Card ? 'point the camera at the square' : 'use the school’s sign-on',
                $x + self::PAD,
                $y + 33.0,
                $text,
                8,
            );
        } elseif ($card->passphrase === '') {
            $this->line(self::SANS, 10, 'your own', $x + self::PAD, $y + 33.0, $text, 8);
        } else {
            $this->line(self::MONO, 12, $card->passphrase, $x + self::PAD, $y + 32.9, $text, 8);
        }
        $this->line(
            self::SANS,
            8,
            $this->address,
            $x + self::PAD,
            $y + $this->sheet->cardHeight - self::PAD - 3.6,
            $text,
            8,
        );
        $this->line(
            self::SANS,
            8,
            $this->school,
            $x + self::PAD,
            $y + $this->sheet->cardHeight - self::PAD - 7.4,
            $text,
            8,
        );
        $qx = $x + $w - self::PAD - self::QR;
        $qy = $y + ($this->sheet->cardHeight - self::QR) / 2;
        $pdf->write2DBarcode(
            $card->link,
            'QRCODE,M',
            $qx,
            $qy,
            self::QR,
            self::QR,
            ['border' => false, 'padding' => 0, 'fgcolor' => [0, 0, 0], 'bgcolor' => false],
            'N',
        );
        $pdf->SetFont(self::SANS, '', 8);
        $pdf->SetXY($qx, $qy + self::QR + 2.8);
        $pdf->Cell(self::QR, 3.4, 'point a camera here', 0, 0, 'C');
    }

    /** One line of text, made smaller until it fits, never under $least points; then it is cut. */
    private function line(string $font, float $size, string $text, float $x, float $y, float $width, float $least): void
    {
        $pdf = $this->pdf;
        $pdf->SetFont($font, '', $size);
        while ($size > $least && $pdf->GetStringWidth($text) > $width) {
            $size -= 0.5;
            $pdf->SetFont($font, '', $size);
        }
        while (mb_strlen($text) > 1 && $pdf->GetStringWidth($text) > $width) {
            $text = mb_substr($text, 0, -2) . '…';
        }
        $pdf->SetXY($x, $y);
        $pdf->Cell($width, $size * 0.42, $text, 0, 0, 'L', false, '', 0, false, 'T', 'T');
    }

    /** Short hairlines in the margin, in line with every cut. */
    private function cropMarks(): void
    {
        $s = $this->sheet;
        $this->pdf->SetLineStyle(['width' => 0.1, 'color' => [0, 0, 0]]);
        $xs = $ys = [];
        for ($c = 0; $c < $s->columns; $c++) {
            $left = $s->corner($c)[0];
            $xs[(string) $left] = $left;
            $xs[(string) ($left + $s->cardWidth)] = $left + $s->cardWidth;
        }
        for ($r = 0; $r < $s->rows; $r++) {
            $top = $s->corner($r * $s->columns)[1];
            $ys[(string) $top] = $top;
            $ys[(string) ($top + $s->cardHeight)] = $top + $s->cardHeight;
        }
        foreach ($xs as $x) {
            $this->pdf->Line($x, $s->top - 4, $x, $s->top - 1);
            $this->pdf->Line($x, $s->pageHeight - $s->top + 1, $x, $s->pageHeight - $s->top + 4);
        }
        foreach ($ys as $y) {
            $this->pdf->Line($s->left - 4, $y, $s->left - 1, $y);
            $this->pdf->Line($s->pageWidth - $s->left + 1, $y, $s->pageWidth - $s->left + 4, $y);
        }
    }
}
