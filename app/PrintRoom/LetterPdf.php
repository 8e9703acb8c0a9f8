<?php

declare(strict_types=1);

namespace App\PrintRoom;

use App\Platform\Print\Face;
use App\Platform\Print\PrintedPages;
use Closure;
use LogicException;
use Vantrel\Core\Codes\QrSymbol;
use Vantrel\Core\PrintRoom\CardSheet;
use Vantrel\Core\PrintRoom\LetterKind;
use Vantrel\Core\PrintRoom\Wording;

/**
 * Sets letters and handouts, a page each, in the language of each: who it is for, what to do, what is typed in a box
 * with its square, and below a dashed line the slip that comes back. Lines that run from right to left are mirrored.
 * Lengths in mm.
 */
final class LetterPdf
{
    /** No type is smaller, in points. */
    private const LEAST = 8.0;

    private const FULL = 12.0;

    private const SIDE = 22.0;

    private const TOP = 18.0;

    /** Height of the part that is sent back. */
    private const SLIP = 68.0;

    private const FOOT = 14.0;

    private const SQUARE = 34.0;

    private const SLIP_SQUARE = 20.0;

    /** What follows the box, by kind: texts, those of steps numbered, titles above them. */
    private const AFTER = [
        LetterKind::Family->value => [
            ['title', 'new_title'],
            ['steps', 'new_1', 'new_2', 'new_3'],
            ['title', 'known_title'],
            ['steps', 'known_1', 'known_2'],
            ['text', 'check'],
        ],
        LetterKind::Summer->value => [['steps', 'step_1', 'step_2'], ['text', 'keep']],
        LetterKind::Handout->value => [['steps', 'step_1', 'step_2', 'step_3'], ['text', 'where']],
    ];

    private readonly PrintedPages $pdf;

    private readonly float $width;

    private readonly float $height;

    public function __construct(string $paper, private readonly string $school, string $title, string $language)
    {
        [$this->width, $this->height] = CardSheet::PAPERS[$paper] ?? throw new LogicException("No paper $paper.");
        $this->pdf = new PrintedPages($this->width, $this->height, $title, $school, $language);
    }

    /** Whether a letter fits on its page. */
    public function fits(Letter $letter): bool
    {
        return $this->size($letter) !== null;
    }

    /**
     * @param  list<Letter>  $letters all of which fit
     * @param  Closure(int): void|null  $progress told how many stand
     * @return string the PDF's bytes
     */
    public function of(array $letters, ?Closure $progress = null): string
    {
        foreach ($letters as $i => $letter) {
            $size = $this->size($letter) ?? throw new LogicException('A letter does not fit, and was not asked about.');
            $this->pdf->page($letter->language);
            $this->body($letter, $size, true);
            if ($letter->slip !== null) {
                $this->slip($letter);
            }
            if ($progress !== null && $i % 25 === 24) {
                $progress($i + 1);
            }
        }

        return $this->pdf->bytes();
    }

    /** The largest size of type in which all of it stands above the slip; null for none. */
    private function size(Letter $letter): ?float
    {
        $this->pdf->speak($letter->language);
        foreach ($letter->box as [, $typed]) {
            if ($this->boxSize($letter, $typed) === null) {
                return null;
            }
        }
        $room = $this->height - self::FOOT - ($letter->slip === null ? 0.0 : self::SLIP);
        for ($size = self::FULL; $size >= self::LEAST; $size -= 0.5) {
            if ($this->body($letter, $size, false) <= $room) {
                return $size;
            }
        }

        return null;
    }

    /** @return float y below the last line */
    private function body(Letter $letter, float $size, bool $draw): float
    {
        $language = $letter->language;
        $text = Face::text($language);
        $bold = Face::text($language, true);
        $y = self::TOP;
        if ($draw) {
            $this->put($bold, 10, $this->school, self::SIDE, $y, $this->inner());
            $this->put($text, 10, $letter->values['section'] ?? '', self::SIDE, $y, $this->inner(), true);
            $this->pdf->stroke(self::SIDE, $y + 6, $this->width - self::SIDE, $y + 6);
        }
        $y += 11;
        $y = $this->lines(Face::heading($language), 2 * $size, $letter->text('heading'), $y, $draw, 1.25) + 2;
        $y = $this->lines($text, $size, $letter->text('intro'), $y, $draw) + 3;
        $y = $this->box($letter, $y, $draw) + 5;
        foreach (self::AFTER[$letter->wording->kind->value] as $part) {
            $kind = array_shift($part);
            foreach ($part as $i => $name) {
                if ($kind === 'title') {
                    $y = $this->lines($bold, $size, $letter->text($name), $y + 1.5, $draw);
                } elseif ($kind === 'steps') {
                    if ($draw) {
                        $this->put($bold, $size, (string) ($i + 1), self::SIDE, $y, 7);
                    }
                    $y = $this->lines($text, $size, $letter->text($name), $y, $draw, indent: 7) + 0.8;
                } else {
                    $y = $this->lines($text, $size, $letter->text($name), $y + 2, $draw);
                }
            }
        }
        $note = $letter->text(Wording::NOTE);

        return $note === '' ? $y : $this->lines($text, $size, $note, $y + 2, $draw);
    }

    /** What is typed, large, and the square beside it. */
    private function box(Letter $letter, float $y, bool $draw): float
    {
        $height = self::SQUARE + 10;
        if (!$draw) {
            return $y + $height;
        }
        $this->pdf->frame(self::SIDE, $y, $this->inner(), $height, 0.3);
        $this->pdf->square(
            QrSymbol::of($letter->link),
            $this->mirrored($this->width - self::SIDE - self::SQUARE - 5, self::SQUARE),
            $y + 5,
            self::SQUARE,
        );
        $room = $this->boxRoom();
        $each = self::SQUARE / count($letter->box);
        foreach ($letter->box as $i => [$label, $typed]) {
            $at = $y + 5 + $i * $each + max(0, ($each - 17) / 2);
            $this->put(Face::text($letter->language), 9, $label, self::SIDE + 6, $at, $room);
            $size =
                $this->boxSize($letter, $typed) ??
                throw new LogicException('It does not fit, and was not asked about.');
            $this->put(Face::Mono, $size, $typed, self::SIDE + 6, $at + 5.5, $room);
        }

        return $y + $height;
    }

    /** The size in which what is typed stands in the box; null where it is too long for it. */
    private function boxSize(Letter $letter, string $typed): ?float
    {
        $most = count($letter->box) === 1 ? 26.0 : 17.0;

        return $this->pdf->fitting($typed, Face::Mono, $most, self::LEAST, $this->boxRoom());
    }

    private function boxRoom(): float
    {
        return $this->inner() - self::SQUARE - 20;
    }

    private function slip(Letter $letter): void
    {
        $language = $letter->language;
        $text = Face::text($language);
        $y = $this->height - self::SLIP;
        $this->pdf->stroke(self::SIDE - 12, $y, $this->width - self::SIDE + 12, $y, 0.2, '3 2');
        $y += 6;
        $this->put(Face::text($language, true), 10.5, $letter->text('slip_title'), self::SIDE, $y, $this->inner());
        $room = $this->inner() - self::SLIP_SQUARE - 12;
        $after = $y + 6;
        foreach ($this->pdf->lines($letter->text('slip_text'), $text, 10, $room) as $line) {
            $this->put($text, 10, $line, self::SIDE, $after, $room);
            $after += 5;
        }
        $who = trim($this->school . ' · ' . ($letter->values['section'] ?? ''), ' ·');
        $this->put($text, 9, $who, self::SIDE, $after + 0.5, $room);
        $x = $this->width - self::SIDE - self::SLIP_SQUARE;
        if ((string) $letter->slip !== '') {
            $this->pdf->square(
                QrSymbol::of((string) $letter->slip),
                $this->mirrored($x, self::SLIP_SQUARE),
                $y + 1,
                self::SLIP_SQUARE,
            );
            $this->put(Face::Mono, 9, (string) $letter->slip, $x - 5, $y + self::SLIP_SQUARE + 3, 30, middle: true);
        }
        $line = $this->height - 24;
        $third = ($this->inner() - 12) / 3;
        foreach (['slip_name', 'slip_date', 'slip_signature'] as $i => $name) {
            $left = self::SIDE + $i * ($third + 6);
            $from = $this->mirrored($left, $third);
            $this->pdf->stroke($from, $line, $from + $third, $line, 0.2);
            $this->put($text, 8.5, $letter->text($name), $left, $line + 1.5, $third);
        }
    }

    /** A paragraph from the side that its language begins at. */
    private function lines(
        Face $face,
        float $size,
        string $text,
        float $y,
        bool $draw,
        float $leading = 1.42,
        float $indent = 0.0,
    ): float {
        foreach ($this->pdf->lines($text, $face, $size, $this->inner() - $indent) as $line) {
            if ($draw) {
                $this->put($face, $size, $line, self::SIDE + $indent, $y, $this->inner() - $indent);
            }
            $y += ($size * $leading * 25.4) / 72;
        }

        return $y;
    }

    /** One line; all that is said of the left is of the right where lines run that way. */
    private function put(
        Face $face,
        float $size,
        string $text,
        float $x,
        float $y,
        float $width,
        bool $end = false,
        bool $middle = false,
    ): void {
        $align = $middle ? 'C' : ($end === $this->pdf->isRightToLeft() ? 'L' : 'R');
        $this->pdf->put($face, $size, $text, $this->mirrored($x, $width), $y, $width, $align);
    }

    private function mirrored(float $x, float $width): float
    {
        return $this->pdf->isRightToLeft() ? $this->width - $x - $width : $x;
    }

    private function inner(): float
    {
        return $this->width - 2 * self::SIDE;
    }
}
