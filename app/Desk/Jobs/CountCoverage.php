<?php

declare(strict_types=1);

namespace App\Desk\Jobs;

use App\Desk\Coverage;
use App\Models\School;
use Illuminate\Bus\Queueable;
use Illuminate\Contracts\Queue\ShouldBeUnique;
use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** Counts anew how far the accounts of a school have come. */
final class CountCoverage implements ShouldBeUnique, ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;
    use Queueable;

    /** Seconds after which another may be asked for, whatever has become of this one. */
    public int $uniqueFor = 120;

    public function __construct(private readonly string $schoolId) {}

    public function uniqueId(): string
    {
        return $this->schoolId;
    }

    public function handle(Coverage $coverage): void
    {
        $school = School::query()->find($this->schoolId);
        if ($school !== null) {
            $coverage->keep($school);
        }
    }
}
