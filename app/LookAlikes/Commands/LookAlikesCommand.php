<?php

declare(strict_types=1);

namespace App\LookAlikes\Commands;

use App\LookAlikes\Finding;
use App\LookAlikes\Kept;
use App\Models\School;
use App\Platform\EachSchool;
use Illuminate\Console\Command;

final class LookAlikesCommand extends Command
{
    protected $signature = 'vantrel:look-alikes {--all : everyone of every school, not only those who wait}';

    protected $description = 'Look for accounts that may be one person, among those something was written about';

    public function handle(Finding $finding, Kept $kept): int
    {
        ini_set('memory_limit', '512M');
        $ends = $this->option('all')
            ? EachSchool::run(fn(School $school) => $finding->all($school->id))
            : self::SUCCESS;
        $finding->run();
        foreach (School::query()->orderBy('code')->get() as $school) {
            $this->line("$school->code: {$kept->count($school)}");
        }

        return $ends;
    }
}
