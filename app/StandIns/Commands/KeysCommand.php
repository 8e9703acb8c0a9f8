<?php

declare(strict_types=1);

namespace App\StandIns\Commands;

use App\StandIns\OpenIdKeys;
use Illuminate\Console\Command;

/** Changes the key of the provider that stands in, as a real one does now and then. */
final class KeysCommand extends Command
{
    protected $signature = 'vantrel:stand-in-keys';

    protected $description = 'Give the stand-in for single sign-on a new key; the one before is still published';

    public function handle(): int
    {
        $keys = OpenIdKeys::load();
        $keys->rotate();
        $this->info('Signs with ' . $keys->newest()['kid'] . ' from now on.');

        return self::SUCCESS;
    }
}
