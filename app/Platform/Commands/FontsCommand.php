<?php

declare(strict_types=1);

namespace App\Platform\Commands;

use Illuminate\Console\Command;
use TCPDF_FONTS;

final class FontsCommand extends Command
{
    protected $signature = 'vantrel:fonts';

    protected $description = 'Convert resources/fonts for printing; run when the application is installed';

    public function handle(): int
    {
        $to = storage_path('fonts') . '/';
        @mkdir($to, 0755, true);
        foreach (glob(resource_path('fonts/*.ttf')) ?: [] as $file) {
            // The converter warns about tables it does not use.
            if (@TCPDF_FONTS::addTTFfont($file, 'TrueTypeUnicode', '', 32, $to) === false) {
                $this->error("$file could not be converted.");

                return self::FAILURE;
            }
        }

        return self::SUCCESS;
    }
}
