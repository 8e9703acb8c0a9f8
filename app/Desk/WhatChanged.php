<?php

declare(strict_types=1);

namespace App\Desk;

use App\Desk\Views\News;
use App\Desk\Views\NewsLine;
use App\Platform\Instant;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;

/** What others have done at a school since somebody was there last. */
final class WhatChanged
{
    /** As many lines; the rest is in the Ledger. */
    public const LINES = 4;

    /**
     * It is read, up to now.
     *
     * @param  list<string>  $schoolIds
     */
    public function read(array $schoolIds, string $reader): void
    {
        $last = DB::table('ledger_schools')
            ->whereIn('school_id', $schoolIds)
            ->groupBy('school_id')
            ->selectRaw('school_id, max(entry_seq) seq')
            ->pluck('seq', 'school_id');
        DB::table('desk_read')->upsert(
            array_map(
                fn(string $school): array => [
                    'person_id' => $reader,
                    'school_id' => $school,
                    'entry_seq' => (int) ($last[$school] ?? 0),
                    'at' => now(),
                ],
                $schoolIds,
            ),
            ['person_id', 'school_id'],
        );
    }

    /** Of a school. */
    public function news(string $schoolId, string $reader): News
    {
        $read = DB::table('desk_read')->where('person_id', $reader)->where('school_id', $schoolId)->first();
        if ($read === null) {
            return new News(null, [], 0);
        }
        $entries = DB::table('ledger_schools as s')
            ->join('ledger_entries as e', 'e.seq', '=', 's.entry_seq')
            ->where('s.school_id', $schoolId)
            ->where('s.entry_seq', '>', $read->entry_seq)
            ->where(fn(Builder $q) => $q->whereNull('e.actor_id')->orWhere('e.actor_id', '!=', $reader));
        $lines = (clone $entries)
            ->leftJoin('people as p', 'p.id', '=', 'e.actor_id')
            ->orderByDesc('s.entry_seq')
            ->limit(self::LINES)
            ->get(['e.id', 'e.title', 'e.made_at', 'e.undone_at', 'p.given_name', 'p.family_name'])
            ->map(
                fn(stdClass $e): NewsLine => new NewsLine(
                    $e->id,
                    $e->title,
                    trim("$e->given_name $e->family_name") ?: 'Vantrel',
                    Instant::iso($e->made_at),
                    $e->undone_at !== null,
                ),
            )
            ->all();

        return new News(Instant::iso($read->at), array_values($lines), $entries->count() - count($lines));
    }
}
