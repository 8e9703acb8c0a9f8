<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Support\Facades\DB;

/** Says in words which records have changed. */
final class StaleWords
{
    /**
     * @param  list<string>  $records as `table id`
     * @return list<string>
     */
    public static function of(array $records): array
    {
        return array_values(array_unique(array_map(self::one(...), $records)));
    }

    private static function one(string $record): string
    {
        [$table, $id] = explode(' ', $record);
        $name = match ($table) {
            'people' => DB::table('people')->where('id', $id)->selectRaw("CONCAT(given_name, ' ', family_name) n")->value('n'),
            'sections' => DB::table('sections')->where('id', $id)->value('name'),
            'enrollments' => DB::table('enrollments as e')->join('people as p', 'p.id', '=', 'e.person_id')->join('sections as s', 's.id', '=', 'e.section_id')
                ->where('e.id', $id)->selectRaw("CONCAT(p.given_name, ' ', p.family_name, ' in ', s.name) n")->value('n'),
            'sign_ins' => DB::table('sign_ins')->where('id', $id)->value('user_name'),
            default => null,
        };

        return $name === null ? match ($table) {
            'join_codes' => 'a join code', 'invitations' => 'an invitation', 'badges' => 'a card', 'school_years' => 'the school year',
            'guardianships' => 'a guardian', default => 'a record',
        } : (string) $name;
    }
}
