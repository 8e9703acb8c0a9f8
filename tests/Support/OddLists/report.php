<?php

declare(strict_types=1);

// Prints docs/reading-report.md: the reader on made-up odd lists whose truth is known. Run by bin/campaign reading.

require __DIR__ . '/../../../vendor/autoload.php';

use Tests\Support\OddLists\ReadingScore;

ini_set('memory_limit', '1G');
$lists = (int) ($argv[1] ?? 5000);
$from = 110_000;
$score = new ReadingScore();
for ($seed = $from + 1; $seed <= $from + $lists; $seed++) {
    $score->add($seed);
}
$n = fn(int $x): string => number_format($x);
echo "# How well odd lists are read\n\n";
echo "Made by `bin/campaign reading` from {$n($lists)} lists that `tests/Support/OddLists` makes up: a layout,\n";
echo "headings of a language, a way of writing names, numbers, grades and dates, guardians and some damage,\n";
printf("drawn each by itself. Seeds %d to %d, which nothing was tuned on.\n\n", $from + 1, $from + $lists);
echo "- **right**: every student is there, with every value, and nothing was asked.\n";
echo "- **said**: something was not understood, and a question or a message at the row says so.\n";
echo "- **silent**: a value is wrong or missing, or somebody is lost or made up, and nothing says so.\n\n";
printf(
    "Right %s, said %s, silent %s: one list in %s.\n",
    $n($score->right),
    $n($score->lists - $score->right - $score->silent),
    $n($score->silent),
    $score->silent === 0 ? 'none' : $n((int) round($score->lists / $score->silent)),
);
foreach ($score->by as $kind => $drawn) {
    ksort($drawn);
    echo "\n| $kind | lists | right | said | silent |\n| --- | ---: | ---: | ---: | ---: |\n";
    foreach ($drawn as $value => $c) {
        echo "| $value | {$n($c['lists'])} | {$n($c['right'])} | {$n($c['said'])} | {$n($c['silent'])} |\n";
    }
}
echo "\n## Silent\n\n";
echo $score->examples === [] ? "None.\n" : implode('', array_map(fn(string $e): string => "- $e\n", $score->examples));
