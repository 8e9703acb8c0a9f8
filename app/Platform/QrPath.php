<?php

declare(strict_types=1);

namespace App\Platform;

use TCPDF2DBarcode;

/** A QR symbol (ISO/IEC 18004, error correction M) as an SVG path. */
final readonly class QrPath
{
    private function __construct(public string $path, public int $size) {}

    public static function of(string $text): self
    {
        /** @var array{num_cols: int, bcode: array<int, array<int, int|bool>>} $code */
        $code = (new TCPDF2DBarcode($text, 'QRCODE,M'))->getBarcodeArray();
        $path = '';
        foreach ($code['bcode'] as $y => $row) {
            foreach ($row as $x => $dark) {
                if ($dark === 1 || $dark === true) {
                    $path .= "M{$x} {$y}h1v1h-1z";
                }
            }
        }

        return new self($path, $code['num_cols']);
    }
}
