<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Platform\Print\Face;
use App\Platform\Print\PrintedPages;
use Closure;
use LogicException;
use Vantrel\Core\Codes\QrSymbol;
use Vantrel\Core\PrintRoom\CardFace;
use Vantrel\Core\PrintRoom\CardSheet;
use Vantrel\Core\PrintRoom\FaceText;
use Vantrel\Core\PrintRoom\Paper;

/**
 * Sets login cards on sheets: name and section, user name, passphrase, where to go, and the QR of the badge with its
 * quiet zone. Hairline crop marks outside the cards, no filled areas, no text under 8 pt.
 */
final class CardPdf
{
    /** Length of the ruler on a test page, in mm: whoever measures another has a printer that scales. */
    private const RULER = 100.0;

    private readonly PrintedPages $pdf;

    private readonly CardSetting $setting;

    private readonly CardSheet $sheet;

    /** @param  string  $address where to sign in, without the scheme */
    public function __construct(
        private readonly Paper $paper,
        private readonly string $school,
        private readonly string $address,
        string $title = 'Login cards',
    ) {
        $this->sheet = $paper->sheet;
        $this->pdf = new PrintedPages($this->sheet->pageWidth, $this->sheet->pageHeight, $title, $school);
        $this->setting = new CardSetting($this->pdf, $paper, $school, $address);
    }

    /**
     * Those that do not fit on cards of this size, however they are set.
     *
     * @param  list<Card>  $cards
     * @return list<Card>
     */
    public function misfits(array $cards): array
    {
        return array_values(array_filter($cards, fn(Card $card): bool => $this->setting->of($card) === null));
    }

    /**
     * @param  list<Card>  $cards all of which fit
     * @param  Closure(int): void|null  $progress told how many stand
     * @return string the PDF's bytes
     */
    public function of(array $cards, ?Closure $progress = null): string
    {
        $done = 0;
        foreach ($this->paper->places(count($cards)) as $places) {
            $this->pdf->page();
            $this->cropMarks();
            foreach ($places as $place => $card) {
                if ($card !== null) {
                    $this->card($cards[$card], ...$this->sheet->corner($place));
                    $done++;
                }
            }
            if ($progress !== null) {
                $progress($done);
            }
            if ($this->paper->backs) {
                $this->backs($places);
            }
        }

        return $this->pdf->bytes();
    }

    /** A page that shows where the cards will stand on the paper that is in the printer, and whether it scales. */
    public function test(): string
    {
        $pdf = $this->pdf;
        $pdf->page();
        $this->cropMarks();
        for ($place = 0; $place < $this->sheet->places(); $place++) {
            [$x, $y] = $this->sheet->corner($place);
            $pdf->frame($x, $y, $this->sheet->cardWidth, $this->sheet->cardHeight);
            $pdf->put(Face::Sans, 9, (string) ($place + 1), $x + 2, $y + 2, 12);
        }
        // In the middle of the page, over whatever stands there.
        $x = ($this->sheet->pageWidth - self::RULER) / 2;
        $y = $this->sheet->pageHeight / 2;
        $pdf->stroke($x, $y, $x + self::RULER, $y, 0.3);
        for ($mm = 0; $mm <= self::RULER; $mm++) {
            $pdf->stroke($x + $mm, $y, $x + $mm, $y - ($mm % 10 === 0 ? 5 : ($mm % 5 === 0 ? 3.5 : 2)), 0.3);
        }
        $pdf->put(
            Face::Sans,
            10,
            'This line is 100 mm long. Where it is not, print at 100 %, without “fit to page”.',
            $x - 20,
            $y + 2,
            self::RULER + 40,
            'C',
        );

        return $pdf->bytes();
    }

    private function card(Card $card, float $x, float $y): void
    {
        $set = $this->setting->of($card);
        if ($set === null) {
            throw new LogicException("The card of $card->userName does not fit, and was not asked about.");
        }
        foreach ($set->lines as [$line, $text, $size, $top]) {
            $this->pdf->put(CardSetting::faceOf($line->what), $size, $text, $x + $line->x, $y + $top, $line->width);
        }
        $this->rule($set->face, $x, $y);
        $side = $set->face->square;
        if ($side > 0) {
            $symbol = QrSymbol::of($card->link);
            $this->pdf->square($symbol, $x + $set->face->squareX, $y + $set->face->squareY, $side);
        }
        if ($set->face->pictures !== null) {
            CardPictures::draw($this->pdf, $x + $set->face->pictures[0], $y + $set->face->pictures[1]);
        }
        if ($this->paper->fold) {
            $this->foldMarks($x, $y);
        }
        if ($set->face->hint) {
            $this->pdf->put(
                Face::Sans,
                CardFace::LEAST,
                'point a camera here',
                $x + $set->face->squareX - 3,
                $y + $set->face->squareY + $side + 2.8,
                $side + 6,
                'C',
            );
        }
    }

    /** Where a card is folded in the middle of its longer side, so that what signs in lies inside. */
    private function foldMarks(float $x, float $y): void
    {
        [$width, $height] = [$this->sheet->cardWidth, $this->sheet->cardHeight];
        [$midX, $midY] = [$x + $width / 2, $y + $height / 2];
        if ($width >= $height) {
            $this->pdf->stroke($midX, $y, $midX, $y + 2.2, 0.15, '1.2 1');
            $this->pdf->stroke($midX, $y + $height - 2.2, $midX, $y + $height, 0.15, '1.2 1');
        } else {
            $this->pdf->stroke($x, $midY, $x + 2.2, $midY, 0.15, '1.2 1');
            $this->pdf->stroke($x + $width - 2.2, $midY, $x + $width, $midY, 0.15, '1.2 1');
        }
    }

    /** A hairline between who it is and how they sign in, where there is room for one. */
    private function rule(CardFace $face, float $x, float $y): void
    {
        $above = $face->line(FaceText::Place) ?? $face->line(FaceText::Name);
        $below = $face->line(FaceText::UserLabel) ?? $face->line(FaceText::UserName);
        if ($above === null || $below === null || $below->x !== $above->x) {
            return;
        }
        $free = $below->y - $above->y - $above->height();
        if ($free >= 1.2) {
            $at = $y + $above->y + $above->height() + $free / 2;
            $this->pdf->stroke($x + $above->x, $at, $x + $above->x + $above->width, $at);
        }
    }

    /**
     * The other side of a sheet, turned over on its long side: whose card it is does not stand there, so that it lies
     * face down.
     *
     * @param  list<int|null>  $places of the front
     */
    private function backs(array $places): void
    {
        $this->pdf->page();
        foreach ($places as $place => $card) {
            if ($card === null) {
                continue;
            }
            [$x, $y] = $this->sheet->corner($this->sheet->behind($place));
            $middle = $y + $this->sheet->cardHeight / 2;
            $width = $this->sheet->cardWidth - 5;
            foreach (
                [
                    [Face::Serif, 11.0, $this->school, -7.0],
                    [Face::Sans, 8.0, $this->address, -1.6],
                    [Face::Sans, 8.0, 'Found? Hand it in at the school.', 2.4],
                ]
                as [$font, $size, $text, $at]
            ) {
                $fits = $this->pdf->fitting($text, $font, $size, CardFace::LEAST, $width);
                if ($fits !== null) {
                    $this->pdf->put($font, $fits, $text, $x + 2.5, $middle + $at, $width, 'C');
                }
            }
        }
    }

    /** Short hairlines in the margin, in line with every cut; none where there is no margin, or nothing to cut. */
    private function cropMarks(): void
    {
        $s = $this->sheet;
        if ($this->paper->cut) {
            return;
        }
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
        foreach ($s->top >= 4 ? $xs : [] as $x) {
            $this->pdf->stroke($x, $s->top - 4, $x, $s->top - 1, 0.1);
            $this->pdf->stroke($x, $s->pageHeight - $s->top + 1, $x, $s->pageHeight - $s->top + 4, 0.1);
        }
        foreach ($s->left >= 4 ? $ys : [] as $y) {
            $this->pdf->stroke($s->left - 4, $y, $s->left - 1, $y, 0.1);
            $this->pdf->stroke($s->pageWidth - $s->left + 1, $y, $s->pageWidth - $s->left + 4, $y, 0.1);
        }
    }
}
