<?php

declare(strict_types=1);

namespace App\Intake;

use Vantrel\Core\Intake\BookReader;
use Vantrel\Core\Intake\ListLayout;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Table\Column;
use Vantrel\Core\Table\Repair;

/** A plan as the commands print it; documented in docs/formats.md and stable. */
final class PlanJson
{
    /** @param  bool  $changes whether what applying would write is printed as well; secrets never are */
    public static function of(PlannedIntake $planned, bool $changes = false): string
    {
        $read = ReadRow::all($planned->book);
        $plan = $planned->plan;
        $rows = array_values(array_filter($plan->rows, fn(PlanRow $r): bool => $r->verdict !== Verdict::Leaving));
        $leaving = array_values(array_filter($plan->rows, fn(PlanRow $r): bool => $r->verdict === Verdict::Leaving));

        return json_encode(
            [
                'sentence' => $plan->sentence,
                'tallies' => (object) array_column(
                    array_map(fn($t): array => [$t->key, $t->count], $plan->tallies),
                    1,
                    0,
                ),
                'sheets' => array_values(
                    array_map(fn(ListLayout $l): array => self::sheet($planned->book, $l), $planned->book->layouts),
                ),
                'rows' => array_map(
                    fn(PlanRow $r): array => [...self::row($r), 'read' => $read["$r->sheet#$r->number"] ?? null],
                    $rows,
                ),
                'leaving' => array_map(
                    fn(PlanRow $r): array => [
                        'student_number' => $r->matchNumber,
                        'name' => $r->cells['Name']->before,
                        'why' => $r->why,
                    ],
                    $leaving,
                ),
                'questions' => array_map(
                    fn(Question $q): array => [
                        'id' => $q->id,
                        'row' => $q->row,
                        'sheet' => $q->sheet,
                        'text' => $q->text,
                        'detail' => $q->detail,
                        'choices' => array_map(fn($c): array => (array) $c, $q->choices),
                        'answer' => $q->answer,
                    ],
                    $plan->questions,
                ),
                'mail_domains' => $planned->domains,
                'warnings' => $plan->warnings,
                'blockers' => $plan->blockers,
                ...$changes ? ['changes' => array_map(self::change(...), $plan->changes)] : [],
            ],
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRETTY_PRINT,
        );
    }

    /** @return array<string, mixed> */
    private static function sheet(BookReader $book, ListLayout $layout): array
    {
        return [
            'sheet' => BookReader::label($book->sheets, $layout->table),
            'rows_are' => $layout->kind->value,
            'header_row' => $layout->headerRow,
            'names' => $layout->names->familyFirst ? 'family' : 'given',
            'columns' => array_map(
                fn(Column $c): array => ['column' => $c->name(), 'field' => $c->field?->value, 'why' => $c->why],
                $layout->columns,
            ),
        ];
    }

    /** @return array<string, mixed> */
    private static function change(Change $c): array
    {
        $secret = array_fill_keys($c->entity->secrets(), true);

        return [
            'entity' => $c->entity->value,
            'id' => $c->id,
            'before' => $c->inserts() ? null : (object) array_diff_key($c->before, $secret),
            'after' => (object) array_diff_key($c->after, $secret),
            'row' => $c->row,
            'reason' => $c->reason,
        ];
    }

    /** @return array<string, mixed> */
    private static function row(PlanRow $r): array
    {
        return [
            'number' => $r->number,
            'sheet' => $r->sheet,
            'verdict' => $r->verdict->value,
            'why' => $r->why,
            'match' =>
                $r->matchId === null
                    ? null
                    : [
                        'student_number' => $r->matchNumber,
                        'probability' => $r->probability,
                        'evidence' => array_map(fn(Evidence $e): array => (array) $e, $r->evidence),
                    ],
            'problems' => array_map(fn(Problem $p): array => (array) $p, $r->problems),
            'repairs' => array_map(
                fn(Repair $p): array => [
                    'column' => $p->column,
                    'kind' => $p->kind,
                    'before' => $p->before,
                    'after' => $p->after,
                ],
                $r->repairs,
            ),
        ];
    }
}
