<?php

declare(strict_types=1);

// Prints docs/matching-report.md: the matcher on mixed-up lists whose truth is known. Run by bin/match-report.

require __DIR__ . '/../../vendor/autoload.php';

use Tests\Support\MatchingScore;
use Tests\Support\MixedUpList;
use Vantrel\Core\Matching\Matcher;

ini_set('memory_limit', '1G');
$seeds = range(1001, 1006);
echo "# How well it matches\n\n";
echo 'Made by `bin/match-report` from lists that `tests/Support/MixedUpList.php` makes up: a district of ' .
    "students, and a list of some of them and\n";
echo 'some others, with typing errors, short names (half of them in no table of the matcher), swapped fields, ' .
    "moved families, twins, brothers\n";
echo 'and sisters, namesakes, lost accents, capitals, halves of double names, and everyone a grade up. The ' .
    "generator shares nothing with the\n";
echo "matcher's tables. Seeds " .
    min($seeds) .
    ' to ' .
    max($seeds) .
    ", two lists each (85 % and 40 % of the rows known), which nothing was tuned on.\n\n";
echo '- **precision**: of the rows matched without asking (chance of ' .
    Matcher::SAME * 100 .
    " % or more and no caution), how many are who they are taken for.\n";
echo '- **recall**: of the rows that are someone known, how many were matched rightly or asked about with the ' .
    "right person among the choices.\n";
echo "- **asked**: share of all rows that a person has to look at.\n\n";
echo 'Targets: precision 0.999, recall 0.98, asked 4 %, for lists with a birth date or a number. A list that ' .
    "gives no more than a grade cannot be\n";
echo "matched without asking; it is shown to say what to expect of it.\n";
$row = function (string $kind, MatchingScore $score): void {
    printf(
        "| %s | %s | %s | %d | %.4f | %.4f | %.1f %% |\n",
        $kind,
        number_format($score->rows),
        number_format($score->auto),
        count($score->wrong),
        $score->precision(),
        $score->recall(),
        $score->share() * 100,
    );
};
$head =
    "| the list has names and | rows | matched | wrong | precision | recall | asked |\n" .
    "| --- | ---: | ---: | ---: | ---: | ---: | ---: |\n";
foreach ([5000, 20_000] as $people) {
    $all = new MatchingScore();
    echo "\n## Against " . number_format($people) . " students\n\n$head";
    foreach (array_keys(MixedUpList::KINDS) as $kind) {
        $score = new MatchingScore();
        foreach ($seeds as $seed) {
            foreach ([0.85, 0.4] as $share) {
                $list = new MixedUpList($seed, $kind, $people, 800, $share);
                $score->add($list);
                $all->add($list);
            }
        }
        $row($kind, $score);
    }
    echo "\nChances as stated, and as they were, over all of these lists:\n\n" .
        "| stated | pairs | mean stated | true |\n| --- | ---: | ---: | ---: |\n";
    ksort($all->bins);
    foreach ($all->bins as $tenth => [$n, $sum, $right]) {
        printf(
            "| %s | %s | %.3f | %.3f |\n",
            $tenth === 10 ? '0.99 to 1' : sprintf('%s to %s', $tenth / 10, $tenth === 9 ? 0.99 : ($tenth + 1) / 10),
            number_format($n),
            $sum / $n,
            $right / $n,
        );
    }
}
echo "\n## Namesakes of the same year\n\n" .
    'Against 5,000 students; of the rows that are nobody known, two in five have the name, the grade and the year of ' .
    "birth of\nsomebody known, another day of another month, another guardian and no number.\n\n$head";
foreach (['birth date, guardians', 'birth date'] as $kind) {
    $score = new MatchingScore();
    foreach ($seeds as $seed) {
        $score->add(new MixedUpList($seed, $kind, 5000, 2400, 0.6, 55));
    }
    $row($kind, $score);
}
echo "\n" .
    'Chances below 0.9 are stated too low rather than too high: it asks where it need not, and does not ' .
    "guess where it should ask.\n";
