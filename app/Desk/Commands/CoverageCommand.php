<?php

declare(strict_types=1);

namespace App\Desk\Commands;

use App\Desk\Coverage;
use App\Models\School;
use App\Platform\EachSchool;
use Illuminate\Console\Command;

final class CoverageCommand extends Command
{
    protected $signature = 'vantrel:coverage';

    protected $description = 'Keep how far the accounts of each school have come this week; runs every evening';

    public function handle(Coverage $coverage): int
    {
        return EachSchool::run(function (School $school) use ($coverage): void {
            $coverage->keep($school);
            $this->line("$school->code: kept.");
        });
    }
}
