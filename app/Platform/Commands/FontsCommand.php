<?php

declare(strict_types=1);

namespace App\Platform\Commands;

use App\Platform\Print\Face;
use Illuminate\Console\Command;

final class FontsCommand extends Command
{
    protected $signature = 'vantrel:fonts';

    protected $description = 'Convert the faces for printing; run when the application is installed';

    public function handle(): int
    {
        $to = storage_path('fonts') . '/';
        @mkdir($to, 0755, true);
        foreach (Face::files() as $file) {
            if (!Face::convert($file, $to)) {
                $this->error("$file is missing or could not be converted.");

                return self::FAILURE;
            }
        }

        return self::SUCCESS;
    }
}
