<?php

declare(strict_types=1);

// Measures look-alikes on planted second accounts: how many are found and how many would be merged wrongly; how long a
// Roll of 50,000 takes; and the same name comparisons, over the same blocks, by python3-jellyfish. Run by bin/bench
// look-alikes.

require __DIR__ . '/../../vendor/autoload.php';

use Tests\Support\MixedUpList;
use Tests\Support\PlantedLookAlikes;
use Vantrel\Core\Matching\Blocks;
use Vantrel\Core\Matching\JaroWinkler;
use Vantrel\Core\Matching\Population;

ini_set('memory_limit', '2G');
[$people, $length, $seeds] = [(int) ($argv[1] ?? 50_000), 400, range(3001, 3012)];
printf("| the second accounts have | pairs | to merge at once | wrong | precision | shown | missed | recall |\n");
printf("| --- | ---: | ---: | ---: | ---: | ---: | ---: | ---: |\n");
foreach (['birth date, guardians', 'birth date', 'grade, guardians'] as $kind) {
    $sum = ['pairs' => 0, 'clear' => 0, 'wrong' => 0, 'shown' => 0, 'missed' => 0];
    foreach ($seeds as $seed) {
        foreach (
            (new PlantedLookAlikes(new MixedUpList($seed, $kind, 5000, $length, 0.5)))->look()->score()
            as $k => $n
        ) {
            $sum[$k] += $n;
        }
    }
    printf(
        "| %s | %s | %s | %d | %.4f | %s | %d | %.4f |\n",
        $kind,
        number_format($sum['pairs']),
        number_format($sum['clear']),
        $sum['wrong'],
        1 - $sum['wrong'] / max(1, $sum['clear']),
        number_format($sum['shown']),
        $sum['missed'],
        1 - $sum['missed'] / max(1, $sum['pairs']),
    );
}
$planted = new PlantedLookAlikes(new MixedUpList(3999, 'birth date, guardians', $people - 1000, 1000, 0.9));
memory_reset_peak_usage();
$began = microtime(true);
$planted->look();
$whole = microtime(true) - $began;
printf(
    "\nA Roll of %s: every account held against all others in %.1f s, %d MB at most; %d of %d planted pairs found.\n",
    number_format(count($planted->roll)),
    $whole,
    memory_get_peak_usage() / 1_048_576,
    count($planted->truth) - $planted->score()['missed'],
    count($planted->truth),
);
// The pairs of the blocks, by two names each.
$blocks = new Blocks($planted->roll, $planted->roll, new Population());
$file = (string) tempnam(sys_get_temp_dir(), 'pairs');
$out = fopen($file, 'w');
$pairs = $mine = 0;
foreach ($planted->roll as $subject) {
    foreach ($blocks->nearTo($subject) as $other) {
        if ($subject->id < $other->id && $pairs < 3_000_000) {
            fwrite($out, "$subject->givenKey\t$other->givenKey\t$subject->familyKey\t$other->familyKey\n");
            $pairs++;
        }
    }
}
fclose($out);
$began = microtime(true);
$sum = 0.0;
foreach (new SplFileObject($file) as $line) {
    if (is_string($line) && $line !== '') {
        [$a, $b, $c, $d] = explode("\t", rtrim($line, "\n"));
        $sum += JaroWinkler::similarity($a, $b) + JaroWinkler::similarity($c, $d);
    }
}
$mine = microtime(true) - $began;
$program = <<<'PY'
import sys, time, jellyfish
f = getattr(jellyfish, 'jaro_winkler_similarity', None) or jellyfish.jaro_winkler
began, total = time.time(), 0.0
for line in open(sys.argv[1], encoding='utf-8'):
    a, b, c, d = line.rstrip('\n').split('\t')
    total += f(a, b) + f(c, d)
print('%.3f %.1f' % (time.time() - began, total))
PY;
[$theirs, $total] = explode(
    ' ',
    trim(
        (string) shell_exec('/usr/bin/python3 -W ignore -c ' . escapeshellarg($program) . ' ' . escapeshellarg($file)),
    ),
);
printf(
    'The blocks hold %s pairs. Their names compared, read from the same file: PHP %.1f s, python3-jellyfish %.1f s ' .
        "(sums %.1f and %.1f; jellyfish adds Winkler’s bonus above 0.7 only).\n",
    number_format($pairs),
    $mine,
    (float) $theirs,
    $sum,
    (float) $total,
);
unlink($file);
