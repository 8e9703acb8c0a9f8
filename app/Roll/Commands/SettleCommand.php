<?php

declare(strict_types=1);

namespace App\Roll\Commands;

use App\Roll\KeptProblems;
use App\Roll\SearchIndex;
use Illuminate\Console\Command;

final class SettleCommand extends Command
{
    protected $signature = 'vantrel:settle';

    protected $description = 'Work out what the Roll keeps of those something was written about';

    public function handle(KeptProblems $problems, SearchIndex $words): int
    {
        ini_set('memory_limit', '512M');
        $problems->settle();
        $words->settle();

        return self::SUCCESS;
    }
}
