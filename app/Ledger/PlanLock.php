<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Relied;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records\Entity;

/** Holds what a plan is about until it is written, and finds what is no longer as the plan saw it. */
final class PlanLock
{
    private const CHUNK = 500;

    /**
     * Every record the plan updates is locked and must have the version the plan was made from; every record it refers
     * to is locked for reading and must still stand. Table by table and by id, so that two plans at once wait for each
     * other and do not lock each other out.
     */
    public function hold(Plan $plan): void
    {
        $updated = $this->byEntity($plan->changes);
        $relied = Relied::on($plan);
        $tables = array_unique([...array_keys($updated), ...array_keys($relied)]);
        sort($tables);
        $stale = [];
        foreach ($tables as $table) {
            $expected = [];
            foreach ($updated[$table] ?? [] as $change) {
                if ($change->version !== null) {
                    $expected[$change->id] = $change->version;
                }
            }
            ksort($expected);
            foreach (array_chunk($expected, self::CHUNK, true) as $chunk) {
                $found = DB::table($table)
                    ->whereIn('id', array_map(strval(...), array_keys($chunk)))
                    ->orderBy('id')
                    ->lockForUpdate()
                    ->pluck('version', 'id');
                foreach ($chunk as $id => $version) {
                    if ((int) ($found[$id] ?? -1) !== $version) {
                        $stale["$table $id"] = 'changed';
                    }
                }
            }
            // What the plan also updates has been looked at by its version.
            foreach (array_chunk(array_diff_key($relied[$table] ?? [], $expected), self::CHUNK, true) as $chunk) {
                $found = DB::table($table)
                    ->whereIn('id', array_map(strval(...), array_keys($chunk)))
                    ->orderBy('id')
                    ->sharedLock()
                    ->pluck('state', 'id');
                foreach ($chunk as $id => $opens) {
                    $fault = Relied::fault(
                        Entity::from($table),
                        isset($found[$id]) ? (string) $found[$id] : null,
                        $opens,
                    );
                    if ($fault !== null) {
                        $stale["$table $id"] = $fault;
                    }
                }
            }
        }
        foreach ($stale === [] ? LooseEnds::of($plan, new RowsNow(true)) : [] as $record) {
            $stale[$record] = 'changed';
        }
        if ($stale !== []) {
            throw new StalePlan(StaleWords::withWhy(array_slice($stale, 0, 20, true)));
        }
    }

    /**
     * @param  list<Change>  $changes
     * @return array<string, list<Change>>
     */
    private function byEntity(array $changes): array
    {
        $groups = [];
        foreach ($changes as $change) {
            $groups[$change->entity->value][] = $change;
        }
        ksort($groups);

        return $groups;
    }
}
