<?php

declare(strict_types=1);

namespace App\Ledger;

use Closure;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records\Entity;

/** Writes the changes of a plan, set by set, and their images before and after. */
final class ChangeWriter
{
    private const CHUNK = 500;

    /**
     * @param  list<Change>  $changes
     * @param  Closure(int): void|null  $progress
     */
    public function write(array $changes, int $seq, ?Closure $progress): void
    {
        $done = 0;
        foreach (self::runs($changes) as $run) {
            foreach (array_chunk($run, self::CHUNK) as $chunk) {
                $this->record($chunk, $seq);
                $this->put($chunk, $seq);
                $done += count($chunk);
                $progress?->__invoke($done);
            }
        }
    }

    /**
     * Changes whose images are kept already.
     *
     * @param  list<Change>  $changes
     */
    public function writeAgain(array $changes, int $seq): void
    {
        foreach (self::runs($changes) as $run) {
            foreach (array_chunk($run, self::CHUNK) as $chunk) {
                $this->put($chunk, $seq);
            }
        }
    }

    /**
     * Changes in an order that foreign keys and unique constraints allow, grouped into runs that one statement can
     * write: updates of what was there, which make room (an old code closes before its successor opens); inserts in
     * order of dependence; updates that refer to what was inserted.
     *
     * @param  list<Change>  $changes
     * @return list<non-empty-list<Change>>
     */
    private static function runs(array $changes): array
    {
        $inserted = [];
        foreach ($changes as $change) {
            if ($change->inserts()) {
                $inserted[$change->id] = true;
            }
        }
        $order = array_flip(array_map(fn(Entity $e): string => $e->value, Entity::cases()));
        $runs = [1 => [], 2 => [], 3 => []];
        foreach ($changes as $change) {
            $columns = array_keys($change->after);
            sort($columns);
            $refers =
                array_filter(
                    $change->after,
                    fn(string|int|null $value): bool => is_string($value) && isset($inserted[$value]),
                ) !== [];
            $phase = $change->inserts() ? 2 : ($refers ? 3 : 1);
            $runs[$phase][sprintf('%02d', $order[$change->entity->value]) . implode(',', $columns)][] = $change;
        }
        ksort($runs[2], SORT_STRING);

        return [...array_values($runs[1]), ...array_values($runs[2]), ...array_values($runs[3])];
    }

    /** @param  non-empty-list<Change>  $changes of one run */
    private function put(array $changes, int $seq): void
    {
        $rows = array_map(fn(Change $c): array => ['id' => $c->id, 'version' => $seq, ...$c->after], $changes);
        $changes[0]->inserts()
            ? DB::table($changes[0]->entity->value)->insert($rows)
            : SetUpdate::run($changes[0]->entity->value, $rows);
    }

    /** @param  list<Change>  $changes */
    private function record(array $changes, int $seq): void
    {
        DB::table('ledger_changes')->insert(
            array_map(
                fn(Change $c): array => [
                    'entry_seq' => $seq,
                    'entity' => $c->entity->value,
                    'row_id' => $c->id,
                    'was_version' => $c->version,
                    'before' => $this->image($c->entity, $c->before, true),
                    'after' => $this->image($c->entity, $c->after, false),
                    'reason' => mb_substr($c->reason, 0, 200),
                ],
                $changes,
            ),
        );
    }

    /**
     * Secrets leave no copy in the ledger. An absent one (null) is none, and is kept so that undo can make it absent
     * again.
     *
     * @param  array<string, string|int|null>  $values
     */
    private function image(Entity $entity, array $values, bool $before): string
    {
        foreach ($entity->secrets() as $column) {
            if (isset($values[$column])) {
                if ($before) {
                    unset($values[$column]);
                } else {
                    $values[$column] = '(secret)';
                }
            }
        }

        return json_encode((object) $values, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
