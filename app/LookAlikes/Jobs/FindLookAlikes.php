<?php

declare(strict_types=1);

namespace App\LookAlikes\Jobs;

use App\LookAlikes\Finding;
use App\Platform\QueuedWithState;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Looks through whoever waits to be held against the others. Run twice, it does nothing the second time. */
final class FindLookAlikes implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;
    use QueuedWithState;

    /** Until whoever is at it is looked for again. */
    private const SECONDS = 5;

    public int $tries = 60;

    public function __construct()
    {
        $this->queueWithState();
    }

    public function handle(Finding $finding): void
    {
        ini_set('memory_limit', '512M');
        if (!$finding->run()) {
            $this->release(self::SECONDS);
        }
    }
}
