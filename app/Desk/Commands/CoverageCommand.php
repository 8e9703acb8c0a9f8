<?php

declare(strict_types=1);

namespace App\Desk\Commands;

use App\Desk\Coverage;
use App\Models\School;
use Illuminate\Console\Command;

final class CoverageCommand extends Command
{
    protected $signature = 'vantrel:coverage';

    protected $description = 'Keep how far the accounts of each school have come this week; runs every evening';

    public function handle(Coverage $coverage): int
    {
        foreach (School::query()->orderBy('code')->get() as $school) {
            $coverage->keep($school);
            $this->line("$school->code: kept.");
        }

        return self::SUCCESS;
    }
}
