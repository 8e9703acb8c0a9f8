<?php

declare(strict_types=1);

namespace App\Accounts;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Accounts\Lifetime;

/** The sessions of a person that are open, the one used last first. */
final class OpenSessions
{
    /** @return Collection<int, stdClass> id, ip_address, user_agent, last_activity, way */
    public static function of(string $personId): Collection
    {
        return DB::table('sessions')
            ->where('user_id', $personId)
            ->where(
                fn($q) => $q
                    ->where('stays', true)
                    ->orWhere('last_activity', '>', now()->getTimestamp() - Lifetime::Idle->value),
            )
            ->orderByDesc('last_activity')
            ->limit(50)
            ->get(['id', 'ip_address', 'user_agent', 'last_activity', 'way']);
    }
}
