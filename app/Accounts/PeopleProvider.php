<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Person;
use App\Models\StaffStanding;
use App\Platform\Flood;
use Illuminate\Auth\EloquentUserProvider;

/**
 * Reads whoever makes a request, and in the same statement what its gates ask first: what they coordinate, how much
 * they have asked for in the last minute, and whether what opened the session still stands.
 */
final class PeopleProvider extends EloquentUserProvider
{
    private const BESIDES = ['standing', 'lately', 'stands_by'];

    /** @param  string  $identifier */
    public function retrieveById($identifier): ?Person
    {
        $request = request();
        $opened = $request->hasSession() ? Opened::of($request->session()) : null;
        $by = $opened === null ? null : StandsBy::column($opened);
        $person = Person::query()
            ->whereKey($identifier)
            ->select('people.*')
            ->selectSub(StaffStanding::column(), 'standing')
            ->selectSub(Flood::column($identifier), 'lately')
            ->selectSub($by ?? 'NULL', 'stands_by')
            ->first();
        if ($person !== null) {
            [$besides, $own] = collect($person->getAttributes())
                ->partition(fn(mixed $_, string $column): bool => in_array($column, self::BESIDES, true))
                ->all();
            $person->setRawAttributes($own->all(), true);
            StaffStanding::keep($request, $person, (string) $besides['standing']);
            Flood::keep($request, $person, (int) $besides['lately']);
            if ($opened !== null) {
                StandsBy::keep($request, $person, $opened, $besides['stands_by']);
            }
        }

        return $person;
    }
}
