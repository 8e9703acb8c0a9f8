<?php

declare(strict_types=1);

namespace App\Intake;

use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Question;

/** A plan as the commands print it; documented in docs/formats.md and stable. */
final class PlanJson
{
    public static function of(Plan $plan): string
    {
        return json_encode([
            'tallies' => (object) array_column(array_map(fn ($t): array => [$t->key, $t->count], $plan->tallies), 1, 0),
            'rows' => array_map(fn (PlanRow $r): array => [
                'number' => $r->number, 'verdict' => $r->verdict->value, 'why' => $r->why,
                'match' => $r->matchId === null ? null : ['student_number' => $r->matchNumber, 'probability' => $r->probability, 'evidence' => array_map(fn (Evidence $e): array => (array) $e, $r->evidence)],
                'problems' => array_map(fn (Problem $p): array => (array) $p, $r->problems),
            ], $plan->rows),
            'questions' => array_map(fn (Question $q): array => ['id' => $q->id, 'row' => $q->row, 'text' => $q->text, 'choices' => array_map(fn ($c): array => (array) $c, $q->choices), 'answer' => $q->answer], $plan->questions),
            'warnings' => $plan->warnings, 'blockers' => $plan->blockers,
        ], JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRETTY_PRINT);
    }
}
