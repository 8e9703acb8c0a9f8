<?php

declare(strict_types=1);

use Vantrel\Core\Codes\QrSymbol;

/**
 * The mask of a symbol, read from its information as a camera does (ISO/IEC 18004, 7.9).
 *
 * @param  Closure(int, int): bool  $dark
 */
function maskOf(Closure $dark): int
{
    // The five highest bits, turned by 10101: level and mask.
    $bits = 0;
    foreach ([0, 1, 2, 3, 4] as $x) {
        $bits = ($bits << 1) | (int) $dark($x, 8);
    }

    return ($bits ^ 0b10101) & 0b111;
}

function turned(int $mask, int $x, int $y): bool
{
    return [
        ($x + $y) % 2,
        $y % 2,
        $x % 3,
        ($x + $y) % 3,
        (intdiv($y, 2) + intdiv($x, 3)) % 2,
        (($x * $y) % 2) + (($x * $y) % 3),
        ((($x * $y) % 2) + (($x * $y) % 3)) % 2,
        ((($x + $y) % 2) + (($x * $y) % 3)) % 2,
    ][$mask] === 0;
}

// Beside the encoder of TCPDF, an independent one. It tries two masks by chance, so both are compared without theirs,
// in the area around what the standard fixes.
it('sets the same modules as another encoder, in all versions', function (int $bytes): void {
    $text = '';
    while (strlen($text) < $bytes) {
        $text .= chr(97 + random_int(0, 25));
    }
    $ours = QrSymbol::of($text);
    $theirs = (new TCPDF2DBarcode($text, 'QRCODE,M'))->getBarcodeArray();
    expect($theirs['num_rows'])->toBe($ours->size);
    $their = fn(int $x, int $y): bool => (int) $theirs['bcode'][$y][$x] === 1;
    $our = $ours->isDark(...);
    [$mask, $other] = [maskOf($our), maskOf($their)];
    $compared = 0;
    for ($y = 9; $y < $ours->size - 11; $y++) {
        for ($x = 9; $x < $ours->size - 11; $x++) {
            if ($mask === $other || !inPattern($ours->size, $x, $y)) {
                $compared++;
                $a = $our($x, $y) !== ($mask !== $other && turned($mask, $x, $y));
                $b = $their($x, $y) !== ($mask !== $other && turned($other, $x, $y));
                expect($a)->toBe($b, "at $x, $y of $text");
            }
        }
    }
    expect($compared)->toBeGreaterThan(0);
})->with([1, 14, 15, 26, 27, 42, 43, 62, 63, 84, 85, 106, 107, 122, 123, 152, 153, 180, 181, 213]);

/** Whether an alignment pattern may stand there: its middle is at a place of annex E. */
function inPattern(int $size, int $x, int $y): bool
{
    $near = function (int $at) use ($size): bool {
        $version = intdiv($size - 17, 4);
        $middles = $version < 2 ? [] : ($version < 7 ? [6, $size - 7] : [6, [22, 24, 26, 28][$version - 7], $size - 7]);
        foreach ($middles as $middle) {
            if (abs($at - $middle) <= 2) {
                return true;
            }
        }

        return false;
    };

    return $near($x) && $near($y);
}

it('draws symbols that zbarimg reads, of every version and with any bytes', function (): void {
    $folder = scratch();
    $texts = ['https://lanternfield.example/b#A-z_0', 'Ä ö ß – 学校', 'x'];
    foreach ([15, 27, 43, 63, 85, 107, 123, 153, 181, 213] as $bytes) {
        $texts[] = substr(str_repeat(strtr(base64_encode(random_bytes(30)), '+/', '-_'), 6), 0, $bytes);
    }
    foreach ($texts as $i => $text) {
        $symbol = QrSymbol::of($text);
        $side = ($symbol->size + 8) * 4;
        $image = imagecreate($side, $side);
        imagecolorallocate($image, 255, 255, 255);
        $black = (int) imagecolorallocate($image, 0, 0, 0);
        foreach ($symbol->runs() as [$x, $y, $length]) {
            imagefilledrectangle(
                $image,
                ($x + 4) * 4,
                ($y + 4) * 4,
                ($x + 4 + $length) * 4 - 1,
                ($y + 4) * 4 + 3,
                $black,
            );
        }
        imagepng($image, "$folder/$i.png");
        expect(rtrim(outside(['zbarimg', '--nodbus', '-q', '--raw', "$folder/$i.png"]), "\n"))->toBe($text);
    }
});
