<?php

declare(strict_types=1);

namespace App\Intake\Views;

use App\Platform\Resource;
use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Field;

/** One sheet of an intake and how it is read. */
final readonly class SheetView extends Resource
{
    /**
     * @param  int  $source place of the sheet among those of the files
     * @param  string  $kind what its rows are
     * @param  float|null  $odds to one that names stand this way round; null where nothing was to be decided
     * @param  list<ColumnView>  $columns
     */
    public function __construct(
        public int $index,
        public int $source,
        public string $label,
        public string $kind,
        public string $kindLabel,
        public ?int $headerRow,
        public bool $familyFirst,
        public ?float $odds,
        public bool $hasFullNames,
        public array $columns,
    ) {}

    /** @param  array<string, mixed>  $kept as {@see jsonSerialize} gave it */
    public static function restore(array $kept): self
    {
        return new self(
            $kept['index'],
            // Layouts of before the sheet could be seen do not say where it is.
            $kept['source'] ?? $kept['index'],
            $kept['label'],
            $kept['kind'],
            $kept['kindLabel'],
            $kept['headerRow'],
            $kept['familyFirst'],
            $kept['odds'],
            $kept['hasFullNames'],
            array_map(
                fn(array $c): ColumnView => new ColumnView(
                    $c['index'],
                    $c['place'] ?? $c['index'],
                    $c['heading'],
                    $c['samples'],
                    $c['field'],
                    $c['why'],
                ),
                array_values($kept['columns']),
            ),
        );
    }

    /** @return list<self> */
    public static function all(BookReader $book): array
    {
        $views = [];
        foreach ($book->layouts as $i => $layout) {
            $first = $book->sheets[$i]->grid->lines[0];
            $views[] = new self(
                $i,
                $book->sources[$i],
                BookReader::label($book->sheets, $i),
                $layout->kind->value,
                $layout->kind->label(),
                $layout->headerRow,
                $layout->names->familyFirst,
                $layout->names->open > 0 && is_finite($layout->names->odds)
                    ? round(min(9999.0, $layout->names->odds), 1)
                    : null,
                // Commas settle each name by itself: then there is nothing to turn round.
                ($layout->names->open > 0 || is_infinite($layout->names->odds)) &&
                    ($layout->indexOf(Field::FullName) ??
                        ($layout->indexOf(Field::StudentName) ?? $layout->indexOf(Field::GivenName))) !==
                        null,
                array_map(
                    fn(Column $c): ColumnView => new ColumnView(
                        $c->index,
                        $first->place($c->index),
                        $c->heading,
                        $c->samples,
                        $c->field?->value,
                        $c->why,
                    ),
                    $layout->columns,
                ),
            );
        }

        return $views;
    }
}
