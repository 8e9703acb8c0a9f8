<?php

declare(strict_types=1);

namespace App\Intake\Files;

use XMLReader;
use ZipArchive;

/** Which cell formats of an Office Open XML workbook (ECMA-376 Part 1, 18.8) change what a cell says. */
final readonly class CellFormats
{
    /**
     * @param  array<int, true>  $struck places of the formats that strike out
     * @param  array<int, int>  $widths places of the formats that show so many digits, with zeros before: "000000"
     */
    private function __construct(public array $struck = [], public array $widths = []) {}

    public static function of(ZipArchive $zip): self
    {
        $styles = (string) $zip->getFromName('xl/styles.xml', 2_000_000);
        if (preg_match('/<(?:\w+:)?strike\b|formatCode="0{2,15}"/', $styles) !== 1) {
            return new self();
        }
        $xml = new XMLReader();
        $previous = libxml_use_internal_errors(true);
        $fonts = $codes = $struck = $widths = [];
        $font = $format = -1;
        $within = '';
        if ($xml->XML($styles, null, LIBXML_NONET | LIBXML_COMPACT) !== false) {
            while (@$xml->read()) {
                Workbook::refuseDocumentType($xml);
                if ($xml->nodeType !== XMLReader::ELEMENT) {
                    continue;
                }
                if (in_array($xml->localName, ['fonts', 'fills', 'cellXfs', 'cellStyleXfs', 'dxfs'], true)) {
                    $within = $xml->localName;
                } elseif ($xml->localName === 'numFmt' && $within !== 'dxfs') {
                    $code = (string) $xml->getAttribute('formatCode');
                    if (preg_match('/^0{2,15}$/', $code) === 1) {
                        $codes[(int) $xml->getAttribute('numFmtId')] = strlen($code);
                    }
                } elseif ($within === 'fonts' && $xml->localName === 'font') {
                    $font++;
                } elseif ($within === 'fonts' && $xml->localName === 'strike') {
                    $fonts[$font] = !in_array($xml->getAttribute('val'), ['0', 'false'], true);
                } elseif ($within === 'cellXfs' && $xml->localName === 'xf') {
                    $format++;
                    if ($fonts[(int) $xml->getAttribute('fontId')] ?? false) {
                        $struck[$format] = true;
                    }
                    $width = $codes[(int) $xml->getAttribute('numFmtId')] ?? 0;
                    if ($width > 0) {
                        $widths[$format] = $width;
                    }
                }
            }
        }
        libxml_clear_errors();
        libxml_use_internal_errors($previous);

        return new self($struck, $widths);
    }

    public function areAny(): bool
    {
        return $this->struck !== [] || $this->widths !== [];
    }
}
