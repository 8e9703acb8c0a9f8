<?php

declare(strict_types=1);

namespace App\Platform;

use Vantrel\Core\Codes\QrSymbol;

/** A QR symbol (ISO/IEC 18004, error correction M) as an SVG path. */
final readonly class QrPath
{
    private function __construct(public string $path, public int $size) {}

    public static function of(string $text): self
    {
        $symbol = QrSymbol::of($text);
        $path = '';
        foreach ($symbol->runs() as [$x, $y, $length]) {
            $path .= "M{$x} {$y}h{$length}v1h-{$length}z";
        }

        return new self($path, $symbol->size);
    }
}
