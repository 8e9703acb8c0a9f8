<?php

declare(strict_types=1);

namespace App\Retention\Commands;

use App\Models\School;
use App\Platform\EachSchool;
use App\Retention\CleanUp;
use Illuminate\Console\Command;

final class CleanUpCommand extends Command
{
    protected $signature = 'vantrel:clean-up';

    protected $description = 'Clear away what has been kept for as long as each school says; runs every night';

    public function handle(CleanUp $cleanUp): int
    {
        $ends = EachSchool::run(function (School $school) use ($cleanUp): void {
            $said = $cleanUp->school($school);
            $this->line("$school->code: " . ($said === '' ? 'nothing is past its time.' : $said));
        });
        $this->line("Links, sessions and counts that are over: {$cleanUp->rest()} cleared away.");

        return $ends;
    }
}
