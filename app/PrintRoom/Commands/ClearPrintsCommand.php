<?php

declare(strict_types=1);

namespace App\PrintRoom\Commands;

use App\PrintRoom\PrintRuns;
use Illuminate\Console\Command;

final class ClearPrintsCommand extends Command
{
    protected $signature = 'vantrel:clear-prints';

    protected $description = 'Remove prints that were kept for a day';

    public function handle(PrintRuns $runs): int
    {
        $gone = $runs->clear();
        $this->info($gone === 0 ? 'Nothing is past its day.' : "$gone removed.");

        return self::SUCCESS;
    }
}
