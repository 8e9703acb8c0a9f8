<?php

declare(strict_types=1);

namespace Tests\Support;

use PHPUnit\Framework\Assert;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Tally;

/**
 * A plan written out whole, so that a test can hold every word and value of it: title and sentence, what warns (!) and
 * blocks (!!), tallies (#), rows by number, records made (+) and changed (~), questions (?). Records it makes are named
 * by the order they are made in: new1, new2.
 */
final class PlanText
{
    public static function of(Plan $plan): string
    {
        $lines = [
            $plan->title,
            $plan->sentence,
            ...array_map(fn(string $w): string => "! $w", $plan->warnings),
            ...array_map(fn(string $b): string => "!! $b", $plan->blockers),
            ...array_map(fn(Tally $t): string => "# $t->key $t->count $t->label", $plan->tallies),
            ...array_map(self::row(...), $plan->rows),
            ...array_map(self::change(...), $plan->changes),
            ...array_map(self::question(...), $plan->questions),
        ];
        $text = implode("\n", $lines);
        $made = array_values(array_filter($plan->changes, fn(Change $c): bool => $c->inserts()));
        foreach ($made as $i => $change) {
            $text = str_replace($change->id, 'new' . ($i + 1), $text);
        }

        return $text;
    }

    /**
     * Whether a plan is the one that was read and found right: its text stands in plans/ beside the test. After a
     * change that is meant, VANTREL_WRITE_PLANS=1 writes it anew, to be read again.
     */
    public static function mustBe(Plan $plan, string $folder, string $name): void
    {
        $file = "$folder/plans/$name.txt";
        if (getenv('VANTREL_WRITE_PLANS') === '1') {
            is_dir("$folder/plans") || mkdir("$folder/plans");
            file_put_contents($file, self::of($plan) . "\n");
        }
        Assert::assertSame(is_file($file) ? (string) file_get_contents($file) : '', self::of($plan) . "\n", $name);
    }

    private static function row(PlanRow $row): string
    {
        $cells = array_map(
            fn(string $heading, Cell $c): string => $heading .
                ' ' .
                ($c->differs() ? "$c->before > $c->after" : $c->after),
            array_keys($row->cells),
            $row->cells,
        );
        $problems = array_map(
            fn(Problem $p): string => ($p->stops ? 'stops ' : 'note ') . "$p->column: $p->message",
            $row->problems,
        );

        return implode(
            ' | ',
            array_filter([
                trim("$row->sheet $row->number {$row->verdict->value}"),
                ...$cells,
                $row->why,
                ...$problems,
                $row->matchId === null ? '' : 'is ' . trim("$row->matchId $row->matchNumber"),
            ]),
        );
    }

    private static function change(Change $change): string
    {
        $values = array_map(
            fn(string $column, string|int|null $after): string => $change->inserts()
                ? "$column=" . self::value($after)
                : "$column: " . self::value($change->before[$column] ?? null) . ' > ' . self::value($after),
            array_keys($change->after),
            $change->after,
        );
        $head = $change->inserts()
            ? "+ {$change->entity->value} $change->id"
            : "~ {$change->entity->value} $change->id@$change->version";

        return "$head (" .
            implode(', ', $values) .
            ") $change->reason" .
            ($change->row === null ? '' : ", row $change->row");
    }

    private static function question(Question $question): string
    {
        return "? {$question->id} $question->text / $question->detail" .
            ($question->open() ? '' : ' = ' . $question->answer);
    }

    private static function value(string|int|null $value): string
    {
        return $value === null ? '-' : (string) $value;
    }
}
