<?php

declare(strict_types=1);

namespace Vantrel\Core\Codes;

use LengthException;

/**
 * A square symbol that cameras read, by ISO/IEC 18004 (QR Code): bytes, error correction of level M, versions 1 to 10.
 * A line of modules is one integer, so that the penalties of a mask are counted for a whole line at once: a sheet of
 * cards needs a symbol for each.
 */
final class QrSymbol
{
    /** Codewords of error correction in each block, and blocks, at level M; of versions 1 to 10 (table 9). */
    private const CORRECTION = [10, 16, 26, 18, 24, 16, 18, 22, 22, 26];

    private const BLOCKS = [1, 1, 1, 2, 2, 4, 4, 4, 5, 5];

    /** Codewords of all kinds (table 1). */
    private const CODEWORDS = [26, 44, 70, 100, 134, 172, 196, 242, 292, 346];

    /** @var array<int, QrFrame> by version */
    private static array $frames = [];

    /** @param  list<int>  $rows the modules from the top, the leftmost in the highest bit of {@see $size} */
    private function __construct(public readonly int $size, public readonly array $rows) {}

    /** @throws LengthException where the text has more bytes than version 10 holds */
    public static function of(string $text): self
    {
        $version = self::version(strlen($text));
        $frame = self::$frames[$version] ??= new QrFrame($version);

        return new self($frame->size, $frame->with(self::interleaved(self::codewords($text, $version), $version)));
    }

    /** Whether a module is dark, counted from the top left. */
    public function isDark(int $x, int $y): bool
    {
        return (($this->rows[$y] >> ($this->size - 1 - $x)) & 1) === 1;
    }

    /**
     * The dark modules of each row as runs, which are fewer than modules.
     *
     * @return list<array{int, int, int}> the first module from the left, the row from the top, how many
     */
    public function runs(): array
    {
        $runs = [];
        foreach ($this->rows as $y => $row) {
            $x = 0;
            // Runs of equal signs in the row as it is written in twos.
            preg_match_all('/1+|0+/', sprintf("%0{$this->size}b", $row), $parts);
            foreach ($parts[0] as $part) {
                $length = strlen($part);
                if ($part[0] === '1') {
                    $runs[] = [$x, $y, $length];
                }
                $x += $length;
            }
        }

        return $runs;
    }

    private static function version(int $bytes): int
    {
        foreach (array_keys(self::CODEWORDS) as $i) {
            if ($bytes + ($i < 9 ? 2 : 3) <= self::CODEWORDS[$i] - self::CORRECTION[$i] * self::BLOCKS[$i]) {
                return $i + 1;
            }
        }
        throw new LengthException("A symbol holds at most 213 bytes; these are $bytes.");
    }

    /** @return list<int> of data: mode, length, the bytes, and filling */
    private static function codewords(string $text, int $version): array
    {
        $length = strlen($text);
        $bits = bin2hex($text);
        // Four bits of mode stand before the length, so that everything after is moved by half a byte.
        $hex = '4' . sprintf($version < 10 ? '%02x' : '%04x', $length) . $bits . '0';
        $data = array_map(ord(...), str_split((string) hex2bin($hex)));
        $need =
            self::CODEWORDS[$version - 1] - self::CORRECTION[$version - 1] * self::BLOCKS[$version - 1] - count($data);
        for ($i = 0; $i < $need; $i++) {
            $data[] = $i % 2 === 0 ? 0xec : 0x11;
        }

        return $data;
    }

    /**
     * The blocks' data and their error correction, each block's next codeword in turn.
     *
     * @param  list<int>  $data
     * @return list<int>
     */
    private static function interleaved(array $data, int $version): array
    {
        $count = self::BLOCKS[$version - 1];
        $short = intdiv(count($data), $count);
        $longer = count($data) % $count;
        $blocks = $corrections = [];
        $at = 0;
        for ($i = 0; $i < $count; $i++) {
            // The longer blocks come last.
            $length = $short + ($i >= $count - $longer ? 1 : 0);
            $blocks[] = $block = array_slice($data, $at, $length);
            $corrections[] = ReedSolomon::correction($block, self::CORRECTION[$version - 1]);
            $at += $length;
        }
        $words = [];
        foreach ([$blocks, $corrections] as $parts) {
            for ($i = 0, $most = max(array_map(count(...), $parts)); $i < $most; $i++) {
                foreach ($parts as $part) {
                    if (isset($part[$i])) {
                        $words[] = $part[$i];
                    }
                }
            }
        }

        return $words;
    }
}
