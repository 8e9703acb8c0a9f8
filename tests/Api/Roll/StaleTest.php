<?php

declare(strict_types=1);

use App\Roll\Stale;
use Illuminate\Support\Facades\DB;

it('lets others be marked while some are settled: on a first morning everybody writes at once', function (): void {
    $ids = ['01K3CNQ0000000000000000001', '01K3CNQ0000000000000000002', '01K3CNQ0000000000000000003'];
    $others = DB::connection();
    $others->statement('SET SESSION innodb_lock_wait_timeout = 1');
    // Settled by a connection of its own, outside the transaction of this test.
    DB::setDefaultConnection('progress');
    DB::table('roll_stale')->whereIn('person_id', $ids)->delete();
    try {
        Stale::Words->mark(collect([$ids[0], $ids[2]]));
        Stale::Words->settle(fn() => $others->table('roll_stale')->insert(['what' => 'words', 'person_id' => $ids[1]]));
        expect(DB::table('roll_stale')->whereIn('person_id', $ids)->count())->toBe(0);
    } finally {
        DB::setDefaultConnection('mariadb');
        $others->statement('SET SESSION innodb_lock_wait_timeout = DEFAULT');
    }
    expect(
        DB::table('roll_stale')->where('what', 'words')->whereIn('person_id', $ids)->pluck('person_id')->all(),
    )->toBe([$ids[1]]);
});
