<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Generator;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\RowPart;

/**
 * A sheet of a file, cell for cell as it came, with what was made of each: read, mended, asked about, or left out and
 * why.
 */
final class SheetPicture
{
    /** @var array<int, array<int, Line>> place of a table of the sheet to number of a row to the row in the table */
    private array $lines = [];

    /** @var array<string, list<string>> place of a row to what was understood of it */
    private array $read = [];

    private function __construct(private readonly BookReader $book, private readonly int $source)
    {
        foreach ($book->sources as $table => $of) {
            if ($of === $source) {
                $this->lines[$table] = [];
                foreach ($book->sheets[$table]->grid->lines as $line) {
                    $this->lines[$table][$line->number] = $line;
                }
            }
        }
        $labels = array_map(fn(int $t): string => BookReader::label($book->sheets, $t), array_keys($this->lines));
        foreach ([$book->contents->students, $book->contents->staff, $book->contents->sections] as $lines) {
            foreach ($lines as $line) {
                if (in_array($line->sheet, $labels, true)) {
                    $this->read["$line->sheet#$line->number"][] = RowWords::of($line);
                }
            }
        }
    }

    /**
     * @param  int  $source place of the sheet among those of the files
     * @return Generator<int, PicturedRow> one after the other: a whole large sheet of them is not held at once
     */
    public static function rows(BookReader $book, int $source): Generator
    {
        $picture = new self($book, $source);
        foreach ($book->shapes[$source]->lines as $line) {
            yield $picture->row($line);
        }
    }

    private function row(Line $line): PicturedRow
    {
        $bands = $this->book->shapes[$this->source]->bands;
        $part = $bands->part($line->number);
        if ($part !== null) {
            $why = $bands->why($line->number);

            return new PicturedRow(
                $line->number,
                $part,
                $why,
                self::alike($line, $part->saysOfOthers() ? Fate::Says : Fate::Left, $why),
                [],
            );
        }
        $row = null;
        foreach ($this->lines as $table => $lines) {
            if (isset($lines[$line->number])) {
                $one = $this->inTable($line, $lines[$line->number], $table);
                $row = $row === null ? $one : self::together($row, $one);
            }
        }
        $why = 'it stands apart from the lists of the sheet';

        return $row ?? new PicturedRow($line->number, RowPart::Text, $why, self::alike($line, Fate::Left, $why), []);
    }

    /** A row as one of the tables of the sheet reads it. */
    private function inTable(Line $shown, Line $line, int $table): PicturedRow
    {
        $layout = $this->book->layouts[$table] ?? null;
        $log = $this->book->contents->logs[$table] ?? null;
        [$part, $why] = match (true) {
            $layout === null || $log === null => [RowPart::Text, 'nothing here could be read as a list'],
            $line->number === $layout->headerRow => [RowPart::Header, 'it says what the columns hold'],
            $layout->headerRow !== null && $line->number < $layout->headerRow => [
                RowPart::Title,
                'it stands above the header',
            ],
            $layout->repeatsHeader($line) => [RowPart::Repeated, 'it repeats the header'],
            $log->whyRow($line->number) !== null => [RowPart::Text, (string) $log->whyRow($line->number)],
            default => [RowPart::Row, ''],
        };
        $cells = self::alike($shown, Fate::Blank, '');
        foreach ($layout === null ? [] : $layout->columns as $column) {
            $place = $line->place($column->index);
            if ($place < 0 || !isset($cells[$place])) {
                continue;
            }
            $text = $cells[$place]->text;
            [$fate, $note] = match (true) {
                trim($text) === '' && $part !== RowPart::Row => [Fate::Blank, ''],
                $part === RowPart::Header => $column->field === null
                    ? [Fate::Left, self::whyLeft($column)]
                    : [Fate::Says, 'it names the column: ' . $column->field->label()],
                $part !== RowPart::Row || $log === null => [Fate::Left, $why],
                default => $this->cell($text, $line, $column, $table, $log, $place),
            };
            $cells[$place] = new PicturedCell($text, $fate, $note);
        }
        // What no column of the table covers is left out with its row.
        foreach ($part === RowPart::Row ? [] : $cells as $c => $cell) {
            if ($cell->fate === Fate::Blank && trim($cell->text) !== '') {
                $cells[$c] = new PicturedCell($cell->text, Fate::Left, $why);
            }
        }
        $label = BookReader::label($this->book->sheets, $table);

        return new PicturedRow(
            $line->number,
            $part,
            $why,
            array_values($cells),
            $part === RowPart::Row ? $this->read["$label#$line->number"] ?? [] : [],
        );
    }

    /** @return array{Fate, string} */
    private function cell(string $text, Line $line, Column $column, int $table, CellLog $log, int $place): array
    {
        $above = $this->book->shapes[$this->source]->bands->filled($line->number)[$place] ?? null;
        $problem =
            array_values(
                array_filter(
                    $log->problems($line->number),
                    fn(Problem $p): bool => $column->field !== null && $p->column === $column->name(),
                ),
            )[0] ?? null;
        $left = $log->whyCell($line->number, $column->index);
        $mended = array_filter(
            $log->repairs($line->number),
            fn($r): bool => $r->columnKey === "keep.t$table.c$column->index",
        );

        return match (true) {
            $above !== null => [trim($text) === '' ? Fate::Above : Fate::Mended, "as above: $above"],
            $problem !== null && trim($text) !== '' => [Fate::Asked, $problem->message],
            trim($text) === '' => [Fate::Blank, ''],
            $column->field === null => [Fate::Left, self::whyLeft($column)],
            $column->unsure !== [] => [Fate::Asked, 'what its column holds is asked above the plan'],
            $left !== null => [Fate::Left, $left],
            $mended !== [] => [
                Fate::Mended,
                implode('; ', array_map(fn($r): string => "read as “{$r->after}” ({$r->kind})", $mended)),
            ],
            default => [Fate::Read, $column->field->label()],
        };
    }

    private static function whyLeft(Column $column): string
    {
        return $column->why === 'left out'
            ? 'left out: nothing says what its column holds'
            : (str_starts_with($column->why, 'left out')
                ? $column->why
                : "left out: $column->why");
    }

    /** @return list<PicturedCell> */
    private static function alike(Line $line, Fate $fate, string $note): array
    {
        return array_map(
            fn(string $text): PicturedCell => trim($text) === ''
                ? new PicturedCell('', Fate::Blank)
                : new PicturedCell($text, $fate, $fate === Fate::Blank ? '' : $note),
            $line->cells,
        );
    }

    /** A row that two tables read: what each made of its own cells. */
    private static function together(PicturedRow $a, PicturedRow $b): PicturedRow
    {
        $first = $a->part === RowPart::Row || $b->part !== RowPart::Row ? $a : $b;

        return new PicturedRow(
            $a->number,
            $first->part,
            $first->why,
            array_map(
                fn(PicturedCell $x, PicturedCell $y): PicturedCell => $y->fate->weight() > $x->fate->weight() ? $y : $x,
                $a->cells,
                $b->cells,
            ),
            [...$a->read, ...$b->read],
        );
    }
}
