<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Support\Facades\DB;

/** Says in words which records have changed, with one query for all of a table. */
final class StaleWords
{
    /** What is said of records that have no name of their own. */
    private const NAMELESS = [
        'join_codes' => 'a join code',
        'invitations' => 'an invitation',
        'badges' => 'a card',
        'school_years' => 'the school year',
        'guardianships' => 'a guardian',
    ];

    /**
     * @param  list<string>  $records as `table id`
     * @return list<string>
     */
    public static function of(array $records): array
    {
        return array_values(array_unique(self::names($records)));
    }

    /**
     * @param  array<string, string>  $why by record, as `table id`; "changed" goes without saying
     * @return list<string>
     */
    public static function withWhy(array $why): array
    {
        $names = self::names(array_keys($why));

        return array_values(
            array_unique(
                array_map(
                    fn(string $record): string => $why[$record] === 'changed'
                        ? $names[$record]
                        : "$names[$record] $why[$record]",
                    array_keys($why),
                ),
            ),
        );
    }

    /**
     * @param  list<string>  $records
     * @return array<string, string> by record
     */
    private static function names(array $records): array
    {
        $byTable = [];
        foreach ($records as $record) {
            [$table, $id] = explode(' ', $record);
            $byTable[$table][] = $id;
        }
        $person = "TRIM(CONCAT(p.given_name, ' ', p.family_name))";
        $found = [];
        foreach ($byTable as $table => $ids) {
            $query = match ($table) {
                'people' => DB::table('people as p')
                    ->whereIn('p.id', $ids)
                    ->selectRaw("p.id id, $person n"),
                'sections', 'school_years', 'schools' => DB::table($table)
                    ->whereIn('id', $ids)
                    ->selectRaw('id, name n'),
                'enrollments' => DB::table('enrollments as e')
                    ->join('people as p', 'p.id', '=', 'e.person_id')
                    ->join('sections as s', 's.id', '=', 'e.section_id')
                    ->whereIn('e.id', $ids)
                    ->selectRaw("e.id id, CONCAT($person, ' in ', s.name) n"),
                'sign_ins' => DB::table('sign_ins')->whereIn('id', $ids)->selectRaw('id, user_name n'),
                default => null,
            };
            $found[$table] = $query === null ? [] : $query->pluck('n', 'id')->all();
        }
        $names = [];
        foreach ($records as $record) {
            [$table, $id] = explode(' ', $record);
            $names[$record] = (string) ($found[$table][$id] ?? (self::NAMELESS[$table] ?? 'a record'));
        }

        return $names;
    }
}
