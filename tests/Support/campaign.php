<?php

declare(strict_types=1);

// Plays what takes too long for every run of the tests, against a real server. Run by bin/campaign.

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\DB;
use Tests\Support\Guessing;
use Tests\Support\ServerTestCase;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Codes\CodeChances;

require __DIR__ . '/../../vendor/autoload.php';
$app = require __DIR__ . '/../../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
config(['hashing.bcrypt.rounds' => 12]);

[$wrong, $people] = [(int) ($argv[1] ?? 1000), (int) ($argv[2] ?? 52)];
$database = 'vantrel_test_campaign';
DB::statement("DROP DATABASE IF EXISTS `$database`");
ServerTestCase::useDatabase($database);
$result = Guessing::run($database, $wrong, $people);
DB::statement("DROP DATABASE `$database`");

$total = $wrong * count($result['statuses']);
printf(
    '%s wrong tries, %s on each of %d public routes, from one address, 32 at a time, with %d people of the ' .
        "same address among them: %.0f s.\n" .
        "\n",
    number_format($total),
    number_format($wrong),
    count($result['statuses']),
    $people,
    $result['seconds'],
);
echo "| came in by | of | did |\n| --- | ---: | ---: |\n";
foreach ($result['in'] as $kind => $n) {
    printf("| %s | %d | %d |\n", $kind, intdiv($people, 4), $n);
}
echo "\n| route | answers |\n| --- | --- |\n";
foreach ($result['statuses'] as $route => $statuses) {
    ksort($statuses);
    printf(
        "| `%s` | %s |\n",
        $route,
        implode(
            ', ',
            array_map(fn(int $s, int $n): string => number_format($n) . " x $s", array_keys($statuses), $statuses),
        ),
    );
}
printf("\nWrong tries that were let in: %d. Answers with 5xx or none: %d.\n", $result['wrongIn'], $result['failed']);
$tries = Limit::CodeAddress->most() + Limit::CodeAccount->most();
echo "\n| join codes open | symbols, with check | chance that one address, guessing all day, opens any |\n" .
    "| ---: | ---: | ---: |\n";
foreach ([1, 140, 490, 1_000, 10_000, 20_000] as $live) {
    $chances = new CodeChances($live, $tries);
    printf(
        "| %s | %d | %.1e |\n",
        number_format($live),
        $chances->payloadLength() + 1,
        $chances->guessPerDay($chances->payloadLength()),
    );
}
exit(
    $result['wrongIn'] === 0 && $result['failed'] === 0 && array_sum($result['in']) === 4 * intdiv($people, 4) ? 0 : 1
);
