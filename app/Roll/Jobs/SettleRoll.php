<?php

declare(strict_types=1);

namespace App\Roll\Jobs;

use App\Platform\QueuedWithState;
use App\Roll\KeptProblems;
use App\Roll\SearchIndex;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** What the Roll keeps of those whom a large entry has affected, before somebody reads it; twice does nothing more. */
final class SettleRoll implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;
    use QueuedWithState;

    public int $tries = 3;

    public function __construct()
    {
        $this->queueWithState();
    }

    public function handle(KeptProblems $problems, SearchIndex $words): void
    {
        ini_set('memory_limit', '512M');
        $problems->settle();
        $words->settle();
    }
}
