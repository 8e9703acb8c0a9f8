<?php

declare(strict_types=1);

namespace App\Mailroom\Commands;

use App\Mailroom\Digests;
use App\Models\School;
use Illuminate\Console\Command;
use Throwable;

/** Writes the digests whose hour has come, school by school. */
final class DigestsCommand extends Command
{
    protected $signature = 'vantrel:digests';

    protected $description = 'Write the digests that are due';

    public function handle(Digests $digests): int
    {
        $ends = self::SUCCESS;
        foreach (School::query()->orderBy('code')->get() as $school) {
            try {
                $count = $digests->run($school);
            } catch (Throwable $e) {
                // The other schools' families hear all the same; this school's are written with the next run.
                report($e);
                $ends = self::FAILURE;
                continue;
            }
            if ($count > 0) {
                $this->line("$school->name: $count.");
            }
        }

        return $ends;
    }
}
