<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/** One row of a list: its number in the file, counted from 1, and its cells as text. */
final readonly class Line
{
    /**
     * @param  list<string>  $cells
     * @param  array<int, string>  $flaws place of the cell to what is wrong with it, as found while reading the file
     * @param  bool  $hidden whether the file hides the row
     * @param  bool  $struck whether all that is in it is struck out
     * @param array<int, int>|null $places which column of the sheet each cell came from, -1 where it came from another
     *     row; null where each stands where it stood
     * @param  bool|null  $header whether somebody said it is the header; null where nobody said anything of headers
     * @param  bool  $kept whether somebody said it is a row of the list
     */
    public function __construct(
        public int $number,
        public array $cells,
        public array $flaws = [],
        public bool $hidden = false,
        public bool $struck = false,
        public ?array $places = null,
        public ?bool $header = null,
        public bool $kept = false,
    ) {}

    /**
     * The same row with its cells arranged otherwise.
     *
     * @param  list<string>  $cells
     * @param  array<int, string>|null  $flaws null where they stay
     * @param  array<int, int>|null  $places null where they stay
     */
    public function with(array $cells, ?array $flaws = null, ?array $places = null): self
    {
        return new self(
            $this->number,
            $cells,
            $flaws ?? $this->flaws,
            $this->hidden,
            $this->struck,
            $places ?? $this->places,
            $this->header,
            $this->kept,
        );
    }

    /** The column of the sheet a cell came from, -1 where it came from another row. */
    public function place(int $column): int
    {
        return $this->places === null ? $column : $this->places[$column] ?? -1;
    }

    public function cell(int $column): string
    {
        return $this->cells[$column] ?? '';
    }

    /** The cell without the white space around it, of every kind: spreadsheets pad with blanks that do not break. */
    public function bare(int $column): string
    {
        $cell = $this->cells[$column] ?? '';

        return preg_match('/^[\s\xC2\xE2\xE3]|[\s\xA0\x80-\xBF]$/', $cell) === 1
            ? (string) preg_replace('/^[\p{Z}\p{Cc}\p{Cf}]+|[\p{Z}\p{Cc}\p{Cf}]+$/u', '', mb_scrub($cell))
            : $cell;
    }

    public function isBlank(): bool
    {
        foreach ($this->cells as $cell) {
            if (trim($cell) !== '') {
                return false;
            }
        }

        return $this->flaws === [];
    }
}
