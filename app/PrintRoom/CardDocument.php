<?php

declare(strict_types=1);

namespace App\PrintRoom;

use TCPDF;
use Vantrel\Core\PrintRoom\FaceText;

/**
 * Pages of cards: the library without its header, its footer and the line it puts on every last page for itself; with
 * our faces, and how wide text is in them.
 */
final class CardDocument extends TCPDF
{
    public const SERIF = 'sourceserif4semib';

    public const SANS = 'atkinsonhyperlegiblenext';

    public const MONO = 'atkinsonhyperlegiblemonosemib';

    public function __construct(float $width, float $height, string $title, string $author)
    {
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
        foreach ([self::SERIF, self::SANS, self::MONO] as $font) {
            $this->AddFont($font, '', storage_path("fonts/$font.php"));
        }
    }

    public static function fontOf(FaceText $what): string
    {
        return match ($what) {
            FaceText::Name => self::SERIF,
            FaceText::UserName, FaceText::Secret => self::MONO,
            default => self::SANS,
        };
    }

    /** In mm. */
    public function widthOf(string $text, string $font, float $size): float
    {
        return (float) $this->GetStringWidth($text, $font, '', $size);
    }

    /** One line of text, from its top left corner. */
    public function put(
        string $font,
        float $size,
        string $text,
        float $x,
        float $y,
        float $width,
        string $align = 'L',
    ): void {
        $this->SetFont($font, '', $size);
        $this->SetXY($x, $y);
        $this->Cell($width, $size * 0.42, $text, 0, 0, $align, false, '', 0, false, 'T', 'T');
    }
}
