<?php

declare(strict_types=1);

namespace App\Roll\Jobs;

use App\Platform\QueuedWithState;
use App\Roll\SearchIndex;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** The words of those a large entry has touched, as they stand when it runs; run twice, it writes nothing more. */
final class IndexWords implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;
    use QueuedWithState;

    public int $tries = 3;

    public function __construct(public readonly int $seq)
    {
        $this->queueWithState();
    }

    public function handle(SearchIndex $words): void
    {
        ini_set('memory_limit', '512M');
        $words->follow($this->seq);
    }
}
