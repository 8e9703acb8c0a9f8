<?php

declare(strict_types=1);

use Vantrel\Core\Codes\QrSymbol;
use Vantrel\Core\Codes\ReedSolomon;

// ISO/IEC 18004, annex I works one symbol through: 01234567 at 1-M, with these codewords and this correction (from
// memory of it; tests/Reference/QrSymbolsTest.php compares whole symbols with other programs).
it('corrects as the standard works it through', function (): void {
    $data = [0x10, 0x20, 0x0c, 0x56, 0x61, 0x80, 0xec, 0x11, 0xec, 0x11, 0xec, 0x11, 0xec, 0x11, 0xec, 0x11];
    expect(ReedSolomon::correction($data, 10))->toBe([0xa5, 0x24, 0xd4, 0xc1, 0xed, 0x36, 0xc7, 0x87, 0x2c, 0x55]);
});

it('gives a remainder that makes the whole divisible: one changed codeword is seen', function (): void {
    $data = range(7, 60);
    $correction = ReedSolomon::correction($data, 22);
    expect(ReedSolomon::correction([...$data, ...$correction], 22))->toBe(array_fill(0, 22, 0));
    $data[3] ^= 1;
    expect(ReedSolomon::correction([...$data, ...$correction], 22))->not->toBe(array_fill(0, 22, 0));
});

it('takes the smallest version that holds the text', function (int $bytes, int $size): void {
    expect(QrSymbol::of(str_repeat('a', $bytes))->size)->toBe($size);
})->with([
    // ISO/IEC 18004, table 7: bytes that level M holds.
    [0, 21],
    [14, 21],
    [15, 25],
    [26, 25],
    [42, 29],
    [43, 33],
    [62, 33],
    [84, 37],
    [85, 41],
    [106, 41],
    [122, 45],
    [152, 49],
    [180, 53],
    [181, 57],
    [213, 57],
]);

it('refuses what it cannot hold, and says how much that is', function (): void {
    expect(fn() => QrSymbol::of(str_repeat('a', 214)))->toThrow(
        LengthException::class,
        'at most 213 bytes; these are 214',
    );
});

it('gives its dark modules as runs that neither touch nor leave the symbol', function (): void {
    $symbol = QrSymbol::of('https://lanternfield.example/b#a-badge');
    $dark = 0;
    $end = [];
    foreach ($symbol->runs() as [$x, $y, $length]) {
        expect($length)
            ->toBeGreaterThan(0)
            ->and($x + $length)
            ->toBeLessThanOrEqual($symbol->size)
            ->and($x)
            ->toBeGreaterThan($end[$y] ?? -1);
        $end[$y] = $x + $length;
        for ($i = $x; $i < $x + $length; $i++) {
            expect($symbol->isDark($i, $y))->toBeTrue();
        }
        $dark += $length;
    }
    $all = 0;
    for ($y = 0; $y < $symbol->size; $y++) {
        for ($x = 0; $x < $symbol->size; $x++) {
            $all += $symbol->isDark($x, $y) ? 1 : 0;
        }
    }
    expect($dark)->toBe($all);
});
