<?php

declare(strict_types=1);

namespace Tests\Support;

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Testing\DatabaseTransactions;
use Illuminate\Foundation\Testing\TestCase;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;

/**
 * A test against the real database of the test instance. Each process has a database of its own; each test runs in a
 * transaction that is rolled back.
 */
abstract class ServerTestCase extends TestCase
{
    use DatabaseTransactions;

    /** @var array<string, true> databases that have their tables */
    private static array $ready = [];

    public function createApplication(): Application
    {
        /** @var Application $app */
        $app = require __DIR__ . '/../../bootstrap/app.php';
        $app->make(Kernel::class)->bootstrap();
        self::useDatabase('vantrel_test_' . (getenv('TEST_TOKEN') ?: '0'));

        return $app;
    }

    /** Switches to a database of its own, made and migrated the first time. */
    public static function useDatabase(string $name): void
    {
        $make = !isset(self::$ready[$name]);
        if ($make) {
            DB::statement("CREATE DATABASE IF NOT EXISTS `$name` CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_ai_ci");
        }
        foreach (['mariadb', 'progress'] as $connection) {
            config(["database.connections.$connection.database" => $name]);
            DB::purge($connection);
        }
        if ($make) {
            Artisan::call('migrate:fresh', ['--force' => true]);
            self::$ready[$name] = true;
        }
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->withoutVite();
    }
}
