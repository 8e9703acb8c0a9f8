<?php

declare(strict_types=1);

namespace App\Platform;

use App\Models\School;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;
use Throwable;

/** What is done for every school by the clock: what goes wrong at one is reported, and the others have theirs. */
final class EachSchool
{
    /**
     * @param  callable(School): mixed  $do
     * @return int the exit status of the command: a failure where it went wrong at any of them
     */
    public static function run(callable $do): int
    {
        $ends = Command::SUCCESS;
        foreach (School::query()->orderBy('code')->get() as $school) {
            $open = DB::transactionLevel();
            try {
                $do($school);
            } catch (Throwable $e) {
                DB::rollBack($open);
                report($e);
                $ends = Command::FAILURE;
            }
        }

        return $ends;
    }
}
