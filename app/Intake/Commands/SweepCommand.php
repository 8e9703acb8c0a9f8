<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\SweepIntakes;
use Illuminate\Console\Command;

final class SweepCommand extends Command
{
    protected $signature = 'vantrel:sweep';

    protected $description = 'Give back lists that say they are being worked on while nothing works on them';

    public function handle(SweepIntakes $sweep): int
    {
        $given = $sweep->run();
        $this->info($given === 0 ? 'Nothing is stuck.' : "$given given back.");

        return self::SUCCESS;
    }
}
