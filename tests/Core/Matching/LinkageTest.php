<?php

declare(strict_types=1);

use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Comparator;
use Vantrel\Core\Matching\Linkage;
use Vantrel\Core\Matching\Population;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;

/** @param  array<string, list<Candidate>>  $candidates */
function linkageAmong(int $people, array $candidates = [], array $assigned = []): Linkage
{
    return new Linkage(
        $candidates,
        $assigned,
        ['r1' => ['k9', 'Ada Ek: a twin']],
        ['r1' => [new Candidate(new Subject('k8', 'Ada', 'Ek'), [], 0.9, ''), 'r7']],
        new Comparator(Weights::published(), new Population()),
        $people,
    );
}

it('gives two that somebody has chosen the chance their weights make', function (int $people, int $among): void {
    $pairs = [
        [new Subject('r', 'Noor', 'Haddad', '2015-08-03'), new Subject('k', 'Noor', 'Haddad', '2015-08-03')],
        // As likely a brother or sister.
        [new Subject('r', 'Noor', 'Haddad', '2015-08-03'), new Subject('k', 'Nour', 'Haddad', '2013-02-11')],
        [new Subject('r', 'Noor', 'Haddad'), new Subject('k', 'Ximena', 'Roig')],
        // More bits than 60, on either side.
        [
            new Subject('r', 'Noor', 'Haddad', '2015-08-03', '417', 'n@x.example', '04', 's', ['a@x.example']),
            new Subject('k', 'Noor', 'Haddad', '2015-08-03', '417', 'n@x.example', '04', 's', ['a@x.example']),
        ],
    ];
    $comparator = new Comparator(Weights::published(), new Population());
    foreach ($pairs as $i => [$row, $person]) {
        $levels = $comparator->levels($row, $person);
        [$same, $sibling] = array_map(
            fn(float $bits): float => max(-60.0, min(60.0, $bits)),
            $comparator->score($levels, $row, $person),
        );
        // Half of the rows are somebody known, a tenth a brother or sister of somebody known; one of $among each.
        $is = (0.5 * 2 ** $same) / $among;
        $kin = (0.1 * 2 ** $sibling) / $among;
        $judged = linkageAmong($people)->judge($row, $person);
        expect($judged->probability)
            ->toEqualWithDelta($is / (0.5 + $is + $kin), 1e-12, "pair $i")
            ->and($judged->subject)
            ->toBe($person)
            ->and(count($judged->evidence))
            ->toBeGreaterThan(1);
    }
    $twin = linkageAmong($people)->judge(new Subject('r', 'Noor', 'Ek'), new Subject('k', 'Ximena', 'Ek'));
    expect($twin->caution)->toBe('the given name is another');
})->with([[1000, 1000], [3, 3], [2, 2], [1, 2], [0, 2]]);

it('knows who may be a row, and who it is taken for', function (): void {
    $of = fn(string $id): Candidate => new Candidate(new Subject($id, 'Noor', 'Ek'), [], 0.9, '');
    $linkage = linkageAmong(
        9,
        ['r1' => [$of('17'), $of('18')], 'r2' => [$of('18'), $of('k3')]],
        ['r1' => '18', 'r3' => '17', 'r2' => 'elsewhere'],
    );
    expect($linkage->people())
        ->toBe(['17', '18', 'k3'])
        ->and($linkage->assigned('r1')?->subject->id)
        ->toBe('18')
        ->and($linkage->assigned('r2'))
        ->toBeNull()
        ->and($linkage->assigned('r3'))
        ->toBeNull()
        ->and($linkage->candidates('r2'))
        ->toHaveCount(2)
        ->and($linkage->candidates('r3'))
        ->toBe([])
        ->and($linkage->taken('r1')[1] ?? null)
        ->toBe('r7')
        ->and($linkage->taken('r2'))
        ->toBeNull()
        ->and($linkage->apart('r1'))
        ->toBe(['k9', 'Ada Ek: a twin'])
        ->and($linkage->apart('r2'))
        ->toBeNull();
});
