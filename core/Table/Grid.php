<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

use IntlChar;
use Normalizer;

/** A list as rows of cells, blank rows left out, numbers as in the file. */
final readonly class Grid
{
    public const MAX_COLUMNS = 120;

    public const MAX_ROWS = 60_000;

    /** Bytes of a cell: those of spreadsheets hold 32,767 characters (from memory). */
    private const LONGEST_CELL = 4 * 32_767;

    /**
     * @param  list<Line>  $lines
     * @param  int  $width columns of the widest line that holds anything
     */
    private function __construct(public array $lines, public int $width) {}

    /** Digits of every script, and letters and signs of double width, as the plain ones they stand for. */
    private static function plain(Line $line): Line
    {
        // The first bytes of such signs in UTF-8; most lists have none of them.
        if (preg_match('/[\xD9\xDB\xDF-\xE1\xEA\xEF]/', implode('', $line->cells)) !== 1) {
            return $line;
        }

        return $line->with(
            array_map(
                fn(string $cell): string => (string) preg_replace_callback(
                    '/\p{Nd}|[Ａ-Ｚａ-ｚ（）－．／＠]/u',
                    self::plainSign(...),
                    mb_scrub($cell),
                ),
                $line->cells,
            ),
        );
    }

    /** @param  array<string>  $m */
    private static function plainSign(array $m): string
    {
        $digit = IntlChar::charDigitValue($m[0]);
        $plain = $digit >= 0 ? (string) $digit : Normalizer::normalize($m[0], Normalizer::FORM_KC);

        return is_string($plain) ? $plain : $m[0];
    }

    /**
     * @param  iterable<Line>  $lines
     *
     * @throws UnreadableList where there is nothing in it, or too much
     */
    public static function of(iterable $lines): self
    {
        $kept = [];
        $width = 0;
        foreach ($lines as $line) {
            if ($line->isBlank()) {
                continue;
            }
            if (count($kept) === self::MAX_ROWS) {
                throw new UnreadableList(
                    'The list has more than ' .
                        number_format(self::MAX_ROWS) .
                        ' rows. Split it, by school or by grade, and drop the parts in one after the other.',
                );
            }
            $kept[] = $line = self::plain($line);
            foreach ($line->cells as $cell) {
                if (strlen($cell) > self::LONGEST_CELL) {
                    throw new UnreadableList(
                        "Row $line->number holds more in one cell than a cell of a spreadsheet can. Delete what does " .
                            'not belong there, save the list and drop it in again.',
                    );
                }
            }
            for ($i = count($line->cells) - 1; $i >= $width; $i--) {
                if (trim($line->cells[$i]) !== '') {
                    $width = $i + 1;
                }
            }
        }
        if ($kept === []) {
            throw new UnreadableList(
                'There is nothing in this list. Open the file, check that the names are on its first sheet, ' .
                    'save it and drop it in again.',
            );
        }
        if ($width > self::MAX_COLUMNS) {
            throw new UnreadableList(
                "The list has $width columns; up to " .
                    self::MAX_COLUMNS .
                    ' can be read. Delete the columns that are not about students and guardians, save, and ' .
                    'drop it in again.',
            );
        }

        return new self($kept, $width);
    }
}
