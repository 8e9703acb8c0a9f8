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
     *
     * @return array<string, string> of people and sections that were held, which school each is of
     */
    public function hold(Plan $plan): array
    {
        $updated = $this->byEntity($plan->changes);
        $relied = Relied::on($plan);
        $tables = array_unique([...array_keys($updated), ...array_keys($relied)]);
        sort($tables);
        $stale = $schools = [];
        foreach ($tables as $table) {
            $placed = in_array($table, [Entity::Person->value, Entity::Section->value], true) ? ['school_id'] : [];
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
                    ->get(['id', 'version', ...$placed])
                    ->keyBy('id');
                $schools += $placed === [] ? [] : $found->pluck('school_id', 'id')->all();
                foreach ($chunk as $id => $version) {
                    if ((int) ($found[$id]->version ?? -1) !== $version) {
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
                    ->get(['id', 'state', ...$placed])
                    ->keyBy('id');
                $schools += $placed === [] ? [] : $found->pluck('school_id', 'id')->all();
                foreach ($chunk as $id => $opens) {
                    $fault = Relied::fault(
                        Entity::from($table),
                        isset($found[$id]) ? (string) $found[$id]->state : null,
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

        return array_map(strval(...), $schools);
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
