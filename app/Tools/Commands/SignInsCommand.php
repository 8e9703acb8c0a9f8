<?php

declare(strict_types=1);

namespace App\Tools\Commands;

use Database\Seeders\DemoDistrict;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class SignInsCommand extends Command
{
    protected $signature = 'vantrel:sign-ins';

    protected $description = 'Print the sign-ins of the demo that are there';

    public function handle(): int
    {
        $rows = [
            ['Coordinator', 'ines.halloran@lanternfield.example', DemoDistrict::STAFF_PASSWORD],
            ['Teacher (lead of 3 Heron)', 'petra.okonjo@lanternfield.example', DemoDistrict::STAFF_PASSWORD],
            ['Assistant in 3 Heron', 'odile.kerr@lanternfield.example', DemoDistrict::STAFF_PASSWORD],
            ['Student in 3 Heron', 'wilhelmina.seabright', 'maple otter candy'],
            ['Guardian', 'helene.marchetti@shoremail.example', DemoDistrict::STAFF_PASSWORD],
        ];
        // They stand in the README: of the demo, and of nothing else.
        if (!config('vantrel.stand_ins')) {
            return self::SUCCESS;
        }
        $there = DB::table('sign_ins')->whereIn('user_name', array_column($rows, 1))->pluck('user_name')->all();
        foreach ($rows as [$who, $user, $secret]) {
            if (in_array($user, $there, true)) {
                $this->line(sprintf('  %-26s %-40s %s', $who, $user, $secret));
            }
        }

        return self::SUCCESS;
    }
}
