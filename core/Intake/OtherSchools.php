<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Table\Field;
use Vantrel\Core\Table\Line;

/** Rows of a list that a column of schools says belong to another school: they are not brought in here. */
final class OtherSchools
{
    /** Whether the column names this school in some row; if not, it calls it by another name. */
    private readonly bool $here;

    /** How many schools the column names. */
    private readonly int $named;

    /** @var array<string, int> other school to how many rows are of it */
    private array $rows = [];

    /** @param  list<Line>  $body */
    public function __construct(
        private readonly RowReader $row,
        ListLayout $layout,
        private readonly SchoolFacts $school,
        array $body,
    ) {
        $at = $layout->indexOf(Field::School);
        $this->named =
            $at === null
                ? 0
                : count(
                    array_unique(
                        array_filter(
                            array_map(fn(Line $l): string => NameKey::of($l->bare($at)), $body),
                            fn(string $s): bool => $s !== '',
                        ),
                    ),
                );
        $this->here = $at !== null && array_filter($body, fn(Line $l): bool => $school->isNamed($l->cell($at))) !== [];
    }

    /** Keeps the row out where it is another school's. */
    public function look(): void
    {
        $said = $this->row->cell(Field::School);
        if ($said !== '' && !$this->here && $this->named > 1) {
            $this->row->problem(
                Field::School,
                "The row is of {$said}. The list names $this->named schools, and {$this->school->name} is none of " .
                    'them. If they are parts of it, say that nothing is read from this column.',
            );

            return;
        }
        if ($said !== '' && $this->here && !$this->school->isNamed($said)) {
            $this->rows[$said] = ($this->rows[$said] ?? 0) + 1;
            $this->row->problem(
                Field::School,
                "The row is of {$said}, not of {$this->school->name}. Bring it in at that school.",
            );
        }
    }

    /**
     * @param  string  $of " of Sheet 2", '' where there is one sheet
     * @return list<string>
     */
    public function warnings(string $of): array
    {
        return array_map(
            fn(string|int $other, int $n): string => ($n === 1 ? 'One row' : "$n rows") .
                "$of " .
                ($n === 1 ? 'is' : 'are') .
                " of another school, $other, and left out here.",
            array_keys($this->rows),
            $this->rows,
        );
    }
}
