<?php

declare(strict_types=1);

namespace App\LookAlikes;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\LookAlikes\LookAlike;
use Vantrel\Core\LookAlikes\LookAlikes;

/** Puts kept pairs together into clusters. */
final class Clustering
{
    /**
     * @param  Builder  $pairs of look_alikes (`l`)
     * @return list<array{LookAlike, stdClass}> those that nobody has told apart, with the cluster that each is of
     *     among all of these, and its row
     */
    public static function of(Builder $pairs): array
    {
        $rows = $pairs
            ->join('people as a', 'a.id', '=', 'l.left_id')
            ->join('people as b', 'b.id', '=', 'l.right_id')
            ->leftJoin(
                'known_apart as k',
                fn($on) => $on
                    ->on('k.left_id', '=', 'l.left_id')
                    ->on('k.right_id', '=', 'l.right_id')
                    // What was said before facts were kept with it stays said.
                    ->whereIn('k.facts', ['', DB::raw('l.facts')]),
            )
            ->orderBy('l.left_id')
            ->orderBy('l.right_id')
            ->get([
                'l.*',
                'a.number as left_number',
                'a.school_id as left_school',
                'b.number as right_number',
                'b.school_id as right_school',
                'k.id as apart',
            ]);
        $numbers = $apart = $links = [];
        foreach ($rows as $p) {
            $numbers[$p->left_id] = [$p->left_school, (string) $p->left_number];
            $numbers[$p->right_id] = [$p->right_school, (string) $p->right_number];
            if ($p->apart === null) {
                $links[] = $p;
            } else {
                $apart["$p->left_id $p->right_id"] = $apart["$p->right_id $p->left_id"] = true;
            }
        }
        $found = array_map(self::pair(...), $links);

        return array_map(
            fn(LookAlike $pair, array $of, stdClass $row): array => [$pair->of(...$of), $row],
            $found,
            LookAlikes::clusters($found, $numbers, $apart),
            $links,
        );
    }

    public static function pair(stdClass $row): LookAlike
    {
        return new LookAlike(
            $row->left_id,
            $row->right_id,
            (float) $row->probability,
            $row->caution,
            [],
            (int) $row->accounts,
            $row->facts,
            (string) $row->cluster,
        );
    }
}
