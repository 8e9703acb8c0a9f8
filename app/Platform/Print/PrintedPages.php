<?php

declare(strict_types=1);

namespace App\Platform\Print;

use IntlBreakIterator;
use LogicException;
use TCPDF;
use Vantrel\Core\Codes\QrSymbol;

/**
 * Pages as we print them: the library without its header, its footer and the line it puts on every last page for
 * itself; our faces, and others for the signs they lack; text written straight onto the page, so that a thousand cards
 * are a matter of seconds. Lengths in mm from the top left corner, type in points.
 */
final class PrintedPages extends TCPDF
{
    /** @var array<string, array{cw: array<int, float>, dw: float, name: int, ascent: float}> by face */
    private array $loaded = [];

    /** @var array<string, array<int, true>> signs that stand on a page, by face */
    private array $used = [];

    /** @var array<string, list<array{Face, string, float}>> by face and text: runs of one face, as they are seen */
    private array $runs = [];

    /** @var array<string, list<string>> by face, size, width and text; most of a letter is the same on every page */
    private array $broken = [];

    private bool $spoken = false;

    private bool $rightToLeft = false;

    /** @param  string  $language of the whole, for what reads it aloud */
    public function __construct(
        private readonly float $width,
        private readonly float $height,
        string $title,
        string $author,
        string $language = 'en',
    ) {
        parent::__construct($width > $height ? 'L' : 'P', 'mm', [$width, $height], true, 'UTF-8');
        $this->tcpdflink = false;
        $this->setPrintHeader(false);
        $this->setPrintFooter(false);
        $this->setAutoPageBreak(false);
        $this->setMargins(0, 0, 0);
        $this->setCellPadding(0);
        $this->setFontSubsetting(true);
        $this->setTitle($title);
        $this->setAuthor($author);
        $this->setCreator('Vantrel');
        $this->setLanguageArray(['a_meta_language' => $language]);
        $this->setViewerPreferences(['DisplayDocTitle' => true]);
        $this->load(Face::Sans);
        $this->setFont(Face::Sans->value, '', 10);
    }

    /** A new page, in a language where it is not that of the whole; it says in which direction lines run. */
    public function page(?string $language = null): void
    {
        $this->endSpoken();
        $this->AddPage();
        $this->speak($language ?? 'en');
        if ($language !== null) {
            // ISO 32000-1, 14.9.2: the language of marked content.
            $this->_out("/Span <</Lang ($language)>> BDC");
            $this->spoken = true;
        }
    }

    /** In mm. */
    public function widthOf(string $text, Face $face, float $size): float
    {
        $units = 0.0;
        foreach ($this->runs($text, $face) as [, , $width]) {
            $units += $width;
        }

        return ($units * $size) / 1000 / $this->k;
    }

    /** One line of text, from its top left corner. */
    public function put(
        Face $face,
        float $size,
        string $text,
        float $x,
        float $y,
        float $width,
        string $align = 'L',
    ): void {
        if ($text === '') {
            return;
        }
        $x += match ($align) {
            'C' => ($width - $this->widthOf($text, $face, $size)) / 2,
            'R' => $width - $this->widthOf($text, $face, $size),
            default => 0.0,
        };
        $this->load($face);
        $left = $x * $this->k;
        $baseline = $this->height * $this->k - $y * $this->k - ($this->loaded[$face->value]['ascent'] * $size) / 1000;
        $out = '';
        foreach ($this->runs($text, $face) as [$of, $hex, $units]) {
            $out .= sprintf(
                "BT /F%d %.2F Tf %.3F %.3F Td <%s> Tj ET\n",
                $this->loaded[$of->value]['name'],
                $size,
                $left,
                $baseline,
                $hex,
            );
            $left += ($units * $size) / 1000;
        }
        $this->_out($out);
    }

    /**
     * Text over as many lines as it takes, broken where its language breaks.
     *
     * @param  float  $leading from line to line, as a share of the size
     * @return float the y below the last line
     */
    public function paragraph(
        Face $face,
        float $size,
        string $text,
        float $x,
        float $y,
        float $width,
        string $align = 'L',
        float $leading = 1.42,
    ): float {
        foreach ($this->lines($text, $face, $size, $width) as $line) {
            $this->put($face, $size, $line, $x, $y, $width, $align);
            $y += ($size * $leading) / $this->k;
        }

        return $y;
    }

    /** @return list<string> */
    public function lines(string $text, Face $face, float $size, float $width): array
    {
        return $this->broken["$face->value $size $width $text"] ??= $this->broken($text, $face, $size, $width);
    }

    /** @return list<string> */
    private function broken(string $text, Face $face, float $size, float $width): array
    {
        $lines = [];
        $breaks = IntlBreakIterator::createLineInstance('root') ?? throw new LogicException('No rules to break lines.');
        foreach (explode("\n", $text) as $part) {
            $breaks->setText($part);
            $line = '';
            $used = 0.0;
            foreach (self::pieces($breaks->getPartsIterator()) as $piece) {
                $wide = $this->widthOf(rtrim($piece), $face, $size);
                if ($line !== '' && $used + $wide > $width) {
                    $lines[] = rtrim($line);
                    $line = '';
                    $used = 0.0;
                }
                $line .= $piece;
                $used += $this->widthOf($piece, $face, $size);
            }
            $lines[] = rtrim($line);
        }

        return $lines;
    }

    /**
     * Places to break at, but none within an address.
     *
     * @param  iterable<string>  $parts
     * @return list<string>
     */
    private static function pieces(iterable $parts): array
    {
        $pieces = [];
        $open = false;
        foreach ($parts as $part) {
            if ($open) {
                $pieces[count($pieces) - 1] .= $part;
            } else {
                $pieces[] = $part;
            }
            $open = str_ends_with($part, '/');
        }

        return $pieces;
    }

    /** The largest size, in steps of half a point, in which a line is no wider; null where it is under the least. */
    public function fitting(string $text, Face $face, float $size, float $least, float $width): ?float
    {
        for (; $size >= $least; $size -= 0.5) {
            if ($this->widthOf($text, $face, $size) <= $width) {
                return $size;
            }
        }

        return null;
    }

    /** A symbol that a camera reads; one path for all its modules, so that no seam shows between them. */
    public function square(QrSymbol $symbol, float $x, float $y, float $side): void
    {
        $module = ($side / $symbol->size) * $this->k;
        $path = sprintf(
            "q 0 g %.5F 0 0 %.5F %.4F %.4F cm\n",
            $module,
            -$module,
            $x * $this->k,
            ($this->height - $y) * $this->k,
        );
        foreach ($symbol->runs() as [$left, $row, $length]) {
            $path .= "$left $row $length 1 re\n";
        }
        $this->_out($path . 'f Q');
    }

    /** A line, in black; dashed where it is to be folded or cut. */
    public function stroke(float $x, float $y, float $toX, float $toY, float $thick = 0.15, string $dash = ''): void
    {
        $this->_out(
            sprintf(
                'q 0 G %.3F w %s %.3F %.3F m %.3F %.3F l S Q',
                $thick * $this->k,
                $dash === '' ? '' : "[$dash] 0 d",
                $x * $this->k,
                ($this->height - $y) * $this->k,
                $toX * $this->k,
                ($this->height - $toY) * $this->k,
            ),
        );
    }

    public function frame(float $x, float $y, float $width, float $height, float $thick = 0.15): void
    {
        $this->_out(
            sprintf(
                'q 0 G %.3F w %.3F %.3F %.3F %.3F re S Q',
                $thick * $this->k,
                $x * $this->k,
                ($this->height - $y - $height) * $this->k,
                $width * $this->k,
                $height * $this->k,
            ),
        );
    }

    /** In which language what is measured next will be set. */
    public function speak(string $language): void
    {
        $this->rightToLeft = $language === 'ar';
    }

    public function isRightToLeft(): bool
    {
        return $this->rightToLeft;
    }

    /** @return string the PDF's bytes */
    public function bytes(): string
    {
        $this->endSpoken();
        // Only these signs go into the file.
        foreach ($this->used as $face => $signs) {
            $this->setFontSubBuffer($face, 'subsetchars', $signs);
            if ($face === Face::Sans->value) {
                // The library writes back what it has of the font that it takes for the current one.
                $this->CurrentFont['subsetchars'] = $signs;
            }
        }

        return (string) $this->Output('', 'S');
    }

    private function endSpoken(): void
    {
        if ($this->spoken) {
            $this->_out('EMC');
            $this->spoken = false;
        }
    }

    /** @return list<array{Face, string, float}> signs from left to right as UTF-16BE in hex, width in thousandths */
    private function runs(string $text, Face $face): array
    {
        $way = $this->rightToLeft ? 'R' : '';

        return $this->runs["$way$face->value $text"] ??= array_map($this->written(...), $this->asSeen($text, $face));
    }

    /**
     * @param  array{Face, list<int>}  $run
     * @return array{Face, string, float}
     */
    private function written(array $run): array
    {
        [$face, $signs] = $run;
        $this->used[$face->value] = ($this->used[$face->value] ?? []) + array_fill_keys($signs, true);
        $text = implode('', array_map(mb_chr(...), $signs));

        return [$face, bin2hex(mb_convert_encoding($text, 'UTF-16BE', 'UTF-8')), $this->units($signs, $face)];
    }

    /** @return list<array{Face, list<int>}> */
    private function asSeen(string $text, Face $face): array
    {
        $signs =
            $this->rightToLeft || RightToLeft::isIn($text)
                ? RightToLeft::seen($text, $this->rightToLeft)
                : array_map(mb_ord(...), mb_str_split($text));
        $signs = array_map(fn(int $sign): int => $sign === 0xa0 ? 0x20 : $sign, $signs);
        $this->load($face);
        $lacking = array_diff_key(array_flip($signs), $this->loaded[$face->value]['cw']);
        if ($lacking === []) {
            return [[$face, $signs]];
        }
        // A name is not set in two faces where one has all of it.
        foreach ($face->instead() as $other) {
            $this->load($other);
            if ($face !== Face::Han && array_diff_key(array_flip($signs), $this->loaded[$other->value]['cw']) === []) {
                return [[$other, $signs]];
            }
        }
        $runs = [];
        foreach ($signs as $sign) {
            $of = $this->has($face, $sign);
            $last = count($runs) - 1;
            if ($last >= 0 && $runs[$last][0] === $of) {
                $runs[$last][1][] = $sign;
            } else {
                $runs[] = [$of, [$sign]];
            }
        }

        return $runs;
    }

    private function has(Face $face, int $sign): Face
    {
        foreach ([$face, ...$face->instead()] as $of) {
            if (isset($this->loaded[$of->value]['cw'][$sign])) {
                return $of;
            }
        }

        return $face;
    }

    /** @param  list<int>  $signs */
    private function units(array $signs, Face $face): float
    {
        $font = $this->loaded[$face->value];
        $units = 0.0;
        foreach ($signs as $sign) {
            $units += $font['cw'][$sign] ?? $font['dw'];
        }

        return $units;
    }

    private function load(Face $face): void
    {
        if (isset($this->loaded[$face->value])) {
            return;
        }
        $this->AddFont($face->value, '', storage_path("fonts/$face->value.php"));
        /** @var array{cw: array<int, float>, dw: float, i: int, desc: array{Ascent: float}} $font */
        $font = $this->getFontBuffer($face->value);
        $this->loaded[$face->value] = [
            'cw' => $font['cw'],
            'dw' => $font['dw'],
            'name' => $font['i'],
            'ascent' => $font['desc']['Ascent'],
        ];
    }
}
