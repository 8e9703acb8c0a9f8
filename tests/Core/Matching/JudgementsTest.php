<?php

declare(strict_types=1);

// What the matcher makes of a hundred rows, word for word: levels, weights, chances, cautions and who is taken for
// whom. ModelTest says that it is good; this says that it is as it was. The text was read once; a change that is meant
// is written anew with VANTREL_WRITE_PLANS=1.

use Tests\Support\MixedUpList;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Clusters;
use Vantrel\Core\Matching\Estimation;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;

/** Holds a text beside the test. */
function asRead(string $name, string $text): void
{
    $file = __DIR__ . "/plans/$name.txt";
    if (getenv('VANTREL_WRITE_PLANS') === '1') {
        is_dir(dirname($file)) || mkdir(dirname($file));
        file_put_contents($file, $text);
    }
    expect($text)->toBe(is_file($file) ? (string) file_get_contents($file) : '');
}

function candidateText(Candidate $c): string
{
    return sprintf('    %.6f %s %s', $c->probability, $c->subject->id, $c->sure() ? 'sure' : 'open') .
        ($c->caution === '' ? '' : " ($c->caution)") .
        ': ' .
        implode(
            '; ',
            array_map(
                fn(Evidence $e): string => sprintf(
                    '%s %s|%s %s %.4f',
                    $e->field,
                    $e->left,
                    $e->right,
                    $e->level,
                    $e->weight,
                ),
                $c->evidence,
            ),
        );
}

it('judges as it did', function (): void {
    $lines = [];
    foreach (array_keys(MixedUpList::KINDS) as $i => $kind) {
        $list = new MixedUpList(401 + $i, $kind, 160, 22, 0.8);
        $linkage = Matcher::link($list->rows, $list->known);
        $lines[] = "$kind:";
        foreach ($list->rows as $row) {
            $apart = $linkage->apart($row->id);
            $taken = $linkage->taken($row->id);
            $lines[] =
                "  $row->id " .
                ($linkage->assigned($row->id)->subject->id ?? 'nobody') .
                ($apart === null ? '' : ", apart $apart[0] $apart[1]") .
                ($taken === null ? '' : ", taken {$taken[0]->subject->id} by $taken[1]");
            array_push($lines, ...array_map(candidateText(...), array_slice($linkage->candidates($row->id), 0, 2)));
        }
        $lines[] = '  people: ' . count($linkage->people());
        $lines[] = candidateText($linkage->judge($list->rows[0], $list->known[0]));
        foreach (array_slice(Matcher::pairs(array_slice($list->known, 0, 120)), 0, 6) as $pair) {
            $lines[] = '  pair ' . substr(hash('sha256', serialize($pair)), 0, 16);
        }
    }
    asRead('judgements', implode("\n", $lines) . "\n");
});

it('learns the same from the same pairs', function (): void {
    $lines = [];
    foreach (['number, birth date, guardians', 'birth date, guardians'] as $i => $kind) {
        $list = new MixedUpList(411 + $i, $kind, 300, 150, 0.8);
        $patterns = Matcher::patterns($list->rows, $list->known);
        foreach ([null, 'known'] as $known) {
            $u = null;
            if ($known !== null) {
                foreach (Weights::levels() as $field => $levels) {
                    foreach ($levels as $level) {
                        $u[$field][$level] = Weights::published()->u($field, $level);
                    }
                }
            }
            $learnt = Estimation::of($patterns, Weights::published(), $u);
            $lines[] = sprintf(
                '%s, u %s: %.6f of the pairs, %.4f',
                $kind,
                $known ?? 'learnt',
                $learnt->share,
                $learnt->matches,
            );
            $weights = Weights::estimated($learnt->m);
            foreach ($learnt->m as $field => $levels) {
                foreach ($levels as $level => $m) {
                    $lines[] = sprintf(
                        '  %s %s: m %.6f, %.4f bits, %.4f among siblings',
                        $field,
                        $level,
                        $m,
                        $weights->same($field, $level),
                        $weights->sibling($field, $level),
                    );
                }
            }
        }
    }
    $none = Estimation::of([], Weights::published());
    $lines[] = sprintf(
        'nothing: %.6f, %.4f, %s',
        $none->share,
        $none->matches,
        $none->suffices() ? 'suffices' : 'too few',
    );
    asRead('estimation', implode("\n", $lines) . "\n");
});

it('gathers links into clusters that hold no contradiction', function (): void {
    $not = fn(string ...$pairs): Closure => fn(string $a, string $b): bool => in_array("$a$b", $pairs, true) ||
        in_array("$b$a", $pairs, true);
    expect(Clusters::of([['b', 'a', 5.0], ['c', 'b', 4.0], ['x', 'y', 1.0]], $not()))
        ->toBe([['a', 'b', 'c'], ['x', 'y']])
        // The weakest link between those who contradict each other is cut.
        ->and(Clusters::of([['a', 'b', 5.0], ['b', 'c', 4.0]], $not('ac')))
        ->toBe([['a', 'b']])
        ->and(Clusters::of([['a', 'b', 4.0], ['b', 'c', 5.0]], $not('ac')))
        ->toBe([['b', 'c']])
        // Round about: the strongest way is cut at its weakest link, then what is left.
        ->and(Clusters::of([['a', 'b', 9.0], ['b', 'c', 8.0], ['a', 'd', 7.0], ['d', 'c', 6.0]], $not('ac')))
        ->toBe([['a', 'b', 'd']])
        ->and(Clusters::of([['a', 'b', 1.0], ['b', 'c', 2.0], ['c', 'd', 3.0], ['d', 'e', 4.0]], $not('ae', 'bd')))
        ->toBe([['c', 'd', 'e']])
        ->and(Clusters::of([], $not()))
        ->toBe([]);
});

it('never splits what does not contradict itself, nor keeps together what does', function (): void {
    $random = new Random\Randomizer(new Random\Engine\Mt19937(5));
    for ($round = 0; $round < 60; $round++) {
        $links = $forbidden = [];
        for ($i = 0; $i < 14; $i++) {
            [$a, $b] = [chr(97 + $random->getInt(0, 9)), chr(97 + $random->getInt(0, 9))];
            if ($a !== $b) {
                $links[] = [$a, $b, (float) $random->getInt(1, 99)];
            }
        }
        for ($i = 0; $i < 4; $i++) {
            $forbidden[chr(97 + $random->getInt(0, 4)) . chr(102 + $random->getInt(0, 4))] = true;
        }
        $against = fn(string $a, string $b): bool => isset($forbidden["$a$b"]) || isset($forbidden["$b$a"]);
        $clusters = Clusters::of($links, $against);
        $members = array_merge(...$clusters);
        expect(count($members))->toBe(count(array_unique($members)));
        foreach ($clusters as $cluster) {
            foreach ($cluster as $a) {
                foreach ($cluster as $b) {
                    expect($a === $b || !$against($a, $b))->toBeTrue();
                }
            }
        }
        // Without anything forbidden, all that is linked is together.
        $whole = Clusters::of($links, fn(): bool => false);
        foreach ($links as [$a, $b]) {
            expect(
                count(array_filter($whole, fn(array $c): bool => in_array($a, $c, true) && in_array($b, $c, true))),
            )->toBe(1);
        }
    }
});

it('keeps the family name without what follows it', function (): void {
    expect((new Subject('x', 'Ada', 'Quill Jr.'))->familyKey)
        ->toBe('quill')
        ->and((new Subject('x', 'Ada', 'Jr'))->familyKey)
        ->toBe('jr')
        ->and((new Subject('x', 'Ada', 'de la Cruz III'))->familyKey)
        ->toBe('de la cruz');
});
