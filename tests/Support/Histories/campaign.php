<?php

declare(strict_types=1);

// Plays many random histories, in memory and on a real database. Run by bin/campaign histories.

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\DB;
use Tests\Support\Histories\Histories;
use Tests\Support\Histories\Run;
use Tests\Support\Histories\Step;
use Tests\Support\Histories\Together;
use Tests\Support\ServerTestCase;

require __DIR__ . '/../../../vendor/autoload.php';
$app = require __DIR__ . '/../../../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();

[$core, $real] = [(int) ($argv[1] ?? 10_000), (int) ($argv[2] ?? 500)];
// Never those the tests play.
$first = 1_000_001;
$failed = 0;

$run = new Run();
$began = microtime(true);
for ($seed = $first; $seed < $first + $core; $seed++) {
    $steps = Histories::random($seed, 6 + ($seed % 12), 3, $seed % 3 !== 0);
    if ($run->play($steps) !== '') {
        $failed++;
        $smallest = Histories::shrink($steps, fn(array $s): bool => (new Run())->play($s) !== '');
        printf(
            "seed %d: %s\n  %s\n",
            $seed,
            (new Run())->play($smallest),
            implode(' ', array_map(strval(...), $smallest)),
        );
    }
}
printf(
    "%s histories in memory, %s of them taken back to the beginning: %d failed, %.0f s.\n\n" .
        "| step | what came of it |\n| --- | --- |\n",
    number_format($core),
    number_format($run->turnedBack),
    $failed,
    microtime(true) - $began,
);
ksort($run->outcomes);
foreach ($run->outcomes as $kind => $came) {
    ksort($came);
    printf(
        "| %s | %s |\n",
        $kind,
        implode(
            ', ',
            array_map(fn(string $what, int $n): string => number_format($n) . " $what", array_keys($came), $came),
        ),
    );
}

$database = 'vantrel_test_histories_campaign';
DB::statement("DROP DATABASE IF EXISTS `$database`");
ServerTestCase::useDatabase($database);
$together = new Together();
$torn = 0;
$began = microtime(true);
for ($seed = $first; $seed < $first + $real; $seed++) {
    $steps = Histories::random($seed, 15, 3, $seed % 3 === 0);
    $broken = $together->play($steps, $seed % 4 === 0 ? 10 + ($seed % 240) : null);
    if ($broken !== '') {
        $torn++;
        printf(
            "seed %d: %s\n  %s\n",
            $seed,
            $broken,
            implode(' ', array_map(fn(Step $s): string => (string) $s, $steps)),
        );
    }
}
DB::statement("DROP DATABASE `$database`");
ksort($together->outcomes);
printf(
    "\n" .
        '%s histories by three processes at once, %d of them with one killed, %s taken back to the ' .
        "beginning: %d failed, %.0f s.\n" .
        "%s.\n",
    number_format($real),
    $together->killed,
    number_format($together->turnedBack),
    $torn,
    microtime(true) - $began,
    implode(
        ', ',
        array_map(
            fn(string $what, int $n): string => number_format($n) . " $what",
            array_keys($together->outcomes),
            $together->outcomes,
        ),
    ),
);
exit($failed + $torn === 0 ? 0 : 1);
