<?php

declare(strict_types=1);

namespace App\Ledger;

/** Says in words which records have changed, with one query for all of a table. */
final class StaleWords
{
    /** What is said of records that are called by what they belong to, and where that is gone too. */
    private const NAMELESS = [
        'join_codes' => ['the join code of %s', 'a join code'],
        'invitations' => ['the invitation to %s', 'an invitation'],
        'badges' => ['the card of %s', 'a card'],
        'school_years' => ['the school year %s', 'the school year'],
        'guardianships' => ['%s', 'a guardian'],
        'room_passes' => ['the room pass of %s', 'a room pass'],
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
        $found = [];
        foreach ($byTable as $table => $ids) {
            $found[$table] = RecordNames::of($table, $ids);
        }
        $names = [];
        foreach ($records as $record) {
            [$table, $id] = explode(' ', $record);
            [$named, $nameless] = self::NAMELESS[$table] ?? ['%s', 'a record'];
            $name = $found[$table][$id] ?? '';
            $names[$record] = $name === '' ? $nameless : sprintf($named, $name);
        }

        return $names;
    }
}
