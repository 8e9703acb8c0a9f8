<?php

declare(strict_types=1);

namespace App\Intake\Commands;

use App\Intake\KeptSheets;
use Illuminate\Console\Command;

/** Takes a kept list apart, and leaves its cells beside it. Called by the product only. */
final class ReadListCommand extends Command
{
    protected $signature = 'vantrel:read-list {file} {title} {school} {code}';

    protected $description = 'Take a list apart in a process of its own (used by the product itself)';

    protected $hidden = true;

    public function handle(): int
    {
        KeptSheets::readHere(
            (string) $this->argument('file'),
            (string) $this->argument('title'),
            (string) $this->argument('school'),
            (string) $this->argument('code'),
        );

        return self::SUCCESS;
    }
}
