<?php

declare(strict_types=1);

namespace App\Retention;

use Closure;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** What a school wrote to many, and keeps: notices, letters and kept words, some of which call somebody by name. */
final class Writings
{
    /** Columns with words by table, and how many characters each holds. */
    private const COLUMNS = [
        'notices' => ['title' => 120, 'body' => 2000, 'texts' => 16_000],
        'mailings' => ['subject' => 250],
        'letter_templates' => ['name' => 60, 'texts' => 4_000_000],
    ];

    /**
     * @param  list<string>  $names whole names
     * @return array<string, list<string>> ids of those that have one of them, by table
     */
    public static function naming(string $school, array $names): array
    {
        $found = [];
        foreach (self::COLUMNS as $table => $columns) {
            $ids = DB::table($table)
                ->where('school_id', $school)
                ->where(function (Builder $any) use ($columns, $names): void {
                    $any->whereRaw('false');
                    foreach (array_keys($columns) as $column) {
                        foreach ($names as $name) {
                            $any->orWhereRaw("instr(`$column`, ?) > 0", [$name]);
                        }
                    }
                })
                ->orderBy('id')
                ->pluck('id');
            $found[$table] = array_values(array_map(strval(...), $ids->all()));
        }

        return $found;
    }

    /**
     * Takes the names out of them, and of what the Ledger keeps of the notices among them.
     *
     * @param  array<string, list<string>>  $found
     * @param  Closure(string): string  $without a text without the names
     */
    public static function clear(array $found, Closure $without): void
    {
        foreach ($found as $table => $ids) {
            foreach (DB::table($table)->whereIn('id', $ids)->get() as $row) {
                $bare = [];
                foreach (self::COLUMNS[$table] as $column => $most) {
                    if ($row->$column !== null) {
                        $bare[$column] = mb_substr($without((string) $row->$column), 0, $most);
                    }
                }
                DB::table($table)->where('id', $row->id)->update($bare);
            }
        }
        $changes = DB::table('ledger_changes')
            ->where('entity', 'notices')
            ->whereIn('row_id', $found['notices'] ?? [])
            ->get(['id', 'entry_seq', 'before', 'after', 'reason']);
        foreach ($changes as $change) {
            DB::table('ledger_changes')
                ->where('id', $change->id)
                ->update([
                    'before' => $without($change->before),
                    'after' => $without($change->after),
                    'reason' => $without($change->reason),
                ]);
        }
        foreach (DB::table('ledger_entries')->whereIn('seq', $changes->pluck('entry_seq'))->get() as $entry) {
            DB::table('ledger_entries')
                ->where('seq', $entry->seq)
                ->update([
                    'title' => mb_substr($without($entry->title), 0, 200),
                    'sentence' => $without($entry->sentence),
                ]);
        }
    }
}
