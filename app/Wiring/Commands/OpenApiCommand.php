<?php

declare(strict_types=1);

namespace App\Wiring\Commands;

use App\Wiring\OpenApi;
use Illuminate\Console\Command;

final class OpenApiCommand extends Command
{
    protected $signature = 'vantrel:openapi {--check : fail if openapi.json is stale instead of writing it}';

    protected $description = 'Write openapi.json from the routes';

    public function handle(OpenApi $api): int
    {
        $path = base_path('openapi.json');
        $json =
            json_encode(
                $api->document(),
                JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_SLASHES | JSON_UNESCAPED_UNICODE,
            ) . "\n";
        if ($this->option('check')) {
            if (!is_file($path) || file_get_contents($path) !== $json) {
                $this->error('openapi.json is stale. Run: php artisan vantrel:openapi && npm run types');

                return self::FAILURE;
            }

            return self::SUCCESS;
        }
        file_put_contents($path, $json);

        return self::SUCCESS;
    }
}
