<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Values\GradeLevel;

/** A student's row as the plan shows it: what stands now and what would stand. */
final readonly class RowCells
{
    public function __construct(private Roster $roster, private SectionBook $sections) {}

    /**
     * @param  list<SectionPlace>  $places
     * @return array<string, Cell>
     */
    public function of(StudentLine $line, ?Person $person, array $places): array
    {
        $was = fn(string $column, string $now): Cell => $person === null || $now === ''
            ? Cell::same($now ?: $person?->field($column) ?? '')
            : new Cell($person->field($column) ?? '', $now);
        $grade = fn(string $code): string => GradeLevel::read($code)?->short() ?? $code;
        $known = $person === null ? '' : $person->fullName();
        $called = fn(string $name, ?string $as): string => (string) $as === '' ? $name : "$name ($as)";
        $now = $called($line->name->full() ?: $known, $line->preferred ?: $person?->preferredName());
        $name = $person === null ? Cell::same($now) : new Cell($called($known, $person->preferredName()), $now);
        $gradeCell = $was('grade', $line->grade);
        $written = array_values(array_filter([$line->homeroom, ...$line->sections], fn(string $s): bool => $s !== ''));
        $after =
            $places === []
                ? implode(', ', $written)
                : implode(', ', array_map(fn(SectionPlace $p): string => $p->name, $places));
        $before = $after;
        if ($person !== null && $places !== []) {
            $homerooms = array_map(
                fn(Enrollment $e): string => $this->sections->nameOf($e->sectionId()),
                $this->roster->homeroomsOf($person->id),
            );
            $fresh = array_filter(
                $places,
                fn(SectionPlace $p): bool => !$this->roster->isIn($person->id, $p->sectionId),
            );
            // Only a homeroom takes the place of another; a class comes to what is there.
            $before = match (true) {
                $fresh === [] => $after,
                array_filter($fresh, fn(SectionPlace $p): bool => $p->homeroom) !== [] => implode(', ', $homerooms),
                default => '',
            };
        }

        return [
            'Name' => $name,
            'Number' => $was('number', $line->studentNumber),
            'Grade' => new Cell($grade($gradeCell->before), $grade($gradeCell->after)),
            'Section' => new Cell($before, $after),
            'Guardians' => Cell::same(
                implode(
                    ', ',
                    array_map(
                        fn(GuardianLine $g): string => $g->name->full() ?: $g->email ?: $g->phone,
                        $line->guardians,
                    ),
                ),
            ),
        ];
    }
}
