<?php

declare(strict_types=1);

namespace Tests\Support;

use Illuminate\Support\Facades\DB;
use Vantrel\Core\Accounts\Limit;

/** Wrong tries that somebody has made before a test begins. */
final class Tries
{
    public static function have(Limit $limit, string $whom, int $n): void
    {
        DB::table('tries')->updateOrInsert(
            ['id' => hash('sha256', "$limit->value|$whom")],
            ['until' => now()->getTimestamp() + $limit->seconds(), 'n' => $n],
        );
    }
}
