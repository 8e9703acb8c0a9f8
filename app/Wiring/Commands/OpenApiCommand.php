<?php

declare(strict_types=1);

namespace App\Wiring\Commands;

use App\Wiring\Most;
use App\Wiring\OpenApi;
use Illuminate\Console\Command;

final class OpenApiCommand extends Command
{
    protected $signature = 'vantrel:openapi {--check : fail if what it writes is stale}';

    protected $description = 'Write openapi.json from the routes, and how much things may hold for the pages';

    public function handle(OpenApi $api): int
    {
        $json =
            json_encode(
                $api->document(),
                JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
            ) . "\n";
        foreach (['openapi.json' => $json, Most::FILE => Most::script()] as $file => $contents) {
            $path = base_path($file);
            if (!$this->option('check')) {
                file_put_contents($path, $contents);
            } elseif (!is_file($path) || file_get_contents($path) !== $contents) {
                $this->error("$file is stale. Run: php artisan vantrel:openapi && npm run types");

                return self::FAILURE;
            }
        }

        return self::SUCCESS;
    }
}
