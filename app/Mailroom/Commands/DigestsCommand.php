<?php

declare(strict_types=1);

namespace App\Mailroom\Commands;

use App\Mailroom\Digests;
use App\Models\School;
use App\Platform\EachSchool;
use Illuminate\Console\Command;

/** Writes the digests whose hour has come, school by school. */
final class DigestsCommand extends Command
{
    protected $signature = 'vantrel:digests';

    protected $description = 'Write the digests that are due';

    public function handle(Digests $digests): int
    {
        return EachSchool::run(function (School $school) use ($digests): void {
            $count = $digests->run($school);
            if ($count > 0) {
                $this->line("$school->name: $count.");
            }
        });
    }
}
