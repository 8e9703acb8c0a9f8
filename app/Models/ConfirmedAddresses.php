<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Support\Facades\DB;
use Vantrel\Core\Records\AddressState;
use Vantrel\Core\Records\PersonState;

/** For whom addresses are confirmed already, anywhere in the installation. */
final class ConfirmedAddresses
{
    private const AT_ONCE = 1000;

    /**
     * @param  list<string>  $addresses
     * @return array<string, list<string>> address to the ids of active accounts that have it confirmed
     */
    public static function among(array $addresses): array
    {
        $found = [];
        foreach (array_chunk(array_values(array_filter($addresses)), self::AT_ONCE) as $some) {
            foreach (
                DB::table('people')
                    ->whereIn('email', $some)
                    ->where('email_state', AddressState::Confirmed)
                    ->where('state', PersonState::Active)
                    ->orderBy('id')
                    ->get(['id', 'email'])
                as $person
            ) {
                $found[(string) $person->email][] = (string) $person->id;
            }
        }

        return $found;
    }
}
