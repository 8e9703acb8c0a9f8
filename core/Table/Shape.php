<?php

declare(strict_types=1);

namespace Vantrel\Core\Table;

/**
 * Finds the tables in a sheet before anything is known of what they mean: text that was never divided, headers of two
 * rows, lists side by side or under each other, rows that go on with the one above, a row for each family. What comes
 * out is plain: one header, one thing in each row.
 */
final readonly class Shape
{
    /**
     * @param  Sheet  $sheet as it came
     * @param  non-empty-list<Sheet>  $tables the sheet itself where it is plain already
     * @param  list<Line>  $lines all rows of the sheet as they are shown: divided into columns where they were not
     * @param  bool  $hides whether the file hides some of its rows
     */
    private function __construct(
        public Sheet $sheet,
        public array $tables,
        public array $lines,
        public Bands $bands,
        public bool $hides,
    ) {}

    /** @param  int  $source place of the sheet among those of the files, for what was said of it */
    public static function of(Sheet $sheet, int $source = 0, ?ReadingAnswers $said = null): self
    {
        $said ??= new ReadingAnswers();
        $bands = new Bands();
        $all = self::marked($sheet->grid->lines, $said->rows($source), $said->header($source), $bands);
        $lines = array_values(array_filter($all, fn(Line $l): bool => $bands->part($l->number) === null));
        [$lines, $more, $hides] = Marked::without($lines, $bands, $said->takesHidden($source));
        [$lines, $notes] = Undivided::lines($lines, $bands);
        $shown = self::shown($all, $lines);
        $notes = [...$sheet->notes, ...$more, ...$notes];
        $tables = [];
        foreach (self::parts($lines, $said->beside($source), $bands) as $name => $part) {
            [$part, $ofHeader] = HeaderBand::merged($part, $bands);
            [$part, $ofFooters] = Footers::without($part, $bands);
            [$part, $ofBlocks] = Blocks::withHeadings($part, $bands);
            [$part, $ofRows] = Continued::filled($part, $bands);
            foreach (self::people($part) as $child => $own) {
                if ($own === []) {
                    continue;
                }
                $tables[] = new Sheet(
                    self::name($sheet, (string) $name, (string) $child),
                    Grid::of($own),
                    $sheet->file,
                    $sheet->check,
                    [...$notes, ...$ofHeader, ...$ofBlocks, ...$ofFooters, ...$ofRows],
                );
                // Said once, however many tables come of it.
                $notes = [];
            }
        }

        return new self($sheet, $tables === [] ? [$sheet] : $tables, $shown, $bands, $hides);
    }

    /**
     * @param  list<Line>  $lines
     * @param  list<int>|null  $beside columns in which lists begin, as somebody said; null where nobody did
     * @return array<int|string, list<Line>> title of each list to its lines
     */
    private static function parts(array $lines, ?array $beside, Bands $bands): array
    {
        if ($beside !== null) {
            return SideBySide::tables($lines, $beside, $bands);
        }
        $parts = Classes::tables($lines, $bands);
        foreach ($parts === [] ? Stacked::tables($lines, $bands) : [] as $title => $stack) {
            foreach (SideBySide::tables($stack, null, $bands) as $name => $part) {
                $parts[trim("$title $name")] = $part;
            }
        }

        return $parts;
    }

    /**
     * @param  list<Line>  $lines
     * @return array<string, list<Line>> a table for each of several people that a row is of
     */
    private static function people(array $lines): array
    {
        $children = Children::apart($lines);

        return array_keys($children) === [''] ? CoTeachers::apart($children['']) : $children;
    }

    /** What a table is called: after its sheet and its title; "Sheet1" adds nothing to a title. */
    private static function name(Sheet $sheet, string $title, string $child): string
    {
        $of = $title !== '' && !$sheet->isNamedByHand() ? '' : $sheet->name;

        return trim(implode(' ', array_filter([$of, $title, $child], fn(string $s): bool => $s !== '')));
    }

    /**
     * The rows with what somebody said of them.
     *
     * @param  list<Line>  $lines
     * @param  array<int, bool>  $rows number of a row to whether it is one of the list
     * @param  int|null  $header number of the header's row, 0 where there is none, null where nobody said
     * @return list<Line>
     */
    private static function marked(array $lines, array $rows, ?int $header, Bands $bands): array
    {
        if ($rows === [] && $header === null) {
            return $lines;
        }
        $out = [];
        foreach ($lines as $line) {
            if (($rows[$line->number] ?? null) === false) {
                $bands->mark($line->number, RowPart::Skipped, 'you said so');
            }
            $out[] = new Line(
                $line->number,
                $line->cells,
                $line->flaws,
                $line->hidden,
                $line->struck,
                $line->places,
                $header === null ? null : $header === $line->number,
                $rows[$line->number] ?? false,
            );
        }

        return $out;
    }

    /**
     * @param  list<Line>  $all
     * @param  list<Line>  $lines those that count, in the columns they were divided into
     * @return list<Line>
     */
    private static function shown(array $all, array $lines): array
    {
        $divided = [];
        foreach ($lines as $line) {
            $divided[$line->number] = $line;
        }

        return array_map(fn(Line $l): Line => $divided[$l->number] ?? $l, $all);
    }
}
