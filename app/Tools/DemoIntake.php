<?php

declare(strict_types=1);

namespace App\Tools;

use App\Intake\Jobs\PlanIntake;
use App\Intake\ListFiles;
use App\Models\Intake;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;

/** The list that a newcomer to the demo finds half-done on the Desk: brought in and planned, not applied. */
final class DemoIntake
{
    private const LIST = 'demo/fall-list-grades-1-5.xlsx';

    public static function leaveHalfDone(): void
    {
        if (!is_file(base_path(self::LIST))) {
            return;
        }
        $intake = Intake::query()->create([
            'id' => (string) Str::ulid(),
            'school_id' => DB::table('schools')->where('code', 'primary')->value('id'),
            'actor_id' => DB::table('people')->where('email', 'ines.halloran@lanternfield.example')->value('id'),
            'title' => basename(self::LIST),
            'files' => [['file' => ListFiles::copy(base_path(self::LIST)), 'title' => basename(self::LIST)]],
            'state' => 'reading',
            'answers' => [],
            'round' => 1,
            'done' => 0,
            'total' => 0,
            'made_at' => now(),
            'changed_at' => now(),
        ]);
        PlanIntake::dispatch($intake->id, 1);
    }
}
