<?php

declare(strict_types=1);

namespace App\Rosters;

use App\Models\FamilyAsking;
use App\Models\Person;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;

/** The children somebody is connected with now: all that a guardian may ever see something of. */
final class Children
{
    /** @return list<string> ids */
    public static function of(Person $person): array
    {
        return array_values(
            self::ties($person)->orderBy('g.student_id')->pluck('g.student_id')->map(strval(...))->all(),
        );
    }

    /** Their ties (`g`). */
    public static function ties(Person $person): Builder
    {
        return DB::table('guardianships as g')
            ->join('people as s', 's.id', '=', 'g.student_id')
            ->where('g.guardian_id', $person->id)
            ->where('g.state', 'connected')
            ->whereNull('g.restriction')
            ->whereIn('s.state', ['active', 'reserve']);
    }

    /**
     * Those whose letter or link they had are known to them; of others they read what they wrote.
     *
     * @return list<string> given names of children about whom the school has yet to answer
     */
    public static function awaited(Person $person): array
    {
        return array_values(
            DB::table('guardian_claims as c')
                ->join('people as s', 's.id', '=', 'c.student_id')
                ->where('c.person_id', $person->id)
                ->where('c.state', 'waiting')
                ->select('s.called_name as name')
                ->unionAll(FamilyAsking::waiting()->where('f.person_id', $person->id)->select('f.child_given as name'))
                ->orderBy('name')
                ->pluck('name')
                ->map(strval(...))
                ->all(),
        );
    }
}
