<?php

declare(strict_types=1);

use Tests\Support\MatchingScore;
use Tests\Support\MixedUpList;
use Vantrel\Core\Matching\Clusters;
use Vantrel\Core\Matching\Estimation;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;

// The targets of the design, on seeds that nothing was tuned on. docs/matching-report.md has the figures of more of
// them.
it('matches mixed-up lists as well as it promises', function (): void {
    $targets = [
        'number, birth date, guardians' => [0.98, 0.04],
        'birth date, guardians' => [0.98, 0.04],
        'birth date' => [0.98, 0.04],
        // With less to go by it asks more; it must not guess.
        'grade, guardians' => [0.97, 0.2],
        'number only' => [0.98, 0.1],
        'grade only' => [0.9, 0.5],
    ];
    $auto = $right = 0;
    foreach ($targets as $kind => [$recall, $asked]) {
        $score = new MatchingScore();
        foreach ([101, 102, 103] as $seed) {
            $score->add(new MixedUpList($seed, $kind, 4000, 600, 0.8));
        }
        expect($score->recall())
            ->toBeGreaterThanOrEqual($recall, $kind)
            ->and($score->share())
            ->toBeLessThanOrEqual($asked, $kind);
        $auto += $score->auto;
        $right += $score->autoRight;
    }
    expect($auto)
        ->toBeGreaterThan(7000)
        ->and($right / $auto)
        ->toBeGreaterThanOrEqual(0.999);
});

it('takes no namesake born in the same year for somebody known', function (string $kind): void {
    $score = new MatchingScore();
    foreach ([104, 105] as $seed) {
        $score->add(new MixedUpList($seed, $kind, 4000, 2400, 0.6, 55));
    }
    // Where the slip of a hand made the two dates one, nothing tells them apart.
    $told = array_filter($score->wrong, function (string $pair): bool {
        [$row, $person] = json_decode($pair, true, flags: JSON_THROW_ON_ERROR);

        return $row['birthDate'] !== $person['birthDate'];
    });
    expect($told)->toBe([])->and($score->auto)->toBeGreaterThan(2500)->and($score->share())->toBeLessThan(0.08);
})->with(['birth date, guardians', 'birth date']);

it('states chances that hold', function (): void {
    $score = new MatchingScore();
    foreach (array_keys(MixedUpList::KINDS) as $i => $kind) {
        $score->add(new MixedUpList(201 + $i, $kind, 4000, 500, 0.8));
    }
    foreach ($score->bins as $tenth => [$n, $sum, $right]) {
        // Under-confident is safe, over-confident is not.
        if ($n >= 40) {
            expect($right / $n)->toBeGreaterThan($sum / $n - 0.12, "tenth $tenth");
        }
    }
});

it('gives each person to one row only, the best for all rows together', function (): void {
    $known = [
        new Subject('a', 'Noor', 'Haddad', '2016-03-08', '020417', '', '04', 's'),
        new Subject('b', 'Nour', 'Haddad', '2016-03-08', '', '', '04', 's'),
    ];
    $rows = [
        new Subject('r1', 'Noor', 'Haddad', '2016-03-08', '', '', '04', 's'),
        new Subject('r2', 'Noor', 'Haddad', '2016-03-08', '020417', '', '04', 's'),
    ];
    $linkage = Matcher::link($rows, $known);
    // By itself the first row would be a; but the second is a for certain.
    expect($linkage->assigned('r2')?->subject->id)
        ->toBe('a')
        ->and($linkage->assigned('r1')?->subject->id)
        ->not->toBe('a')
        ->and($linkage->taken('r1')[1] ?? null)
        ->toBe('r2');
});

it('names those who are alike and yet another', function (Subject $row, string $word): void {
    $known = [new Subject('k', 'Noor', 'Haddad', '2016-03-08', '020417', '', '04', 's', ['ann@x.example'])];
    for ($i = 0; $i < 300; $i++) {
        $known[] = new Subject(
            "c$i",
            'Given' . chr(97 + ($i % 26)) . chr(97 + intdiv($i, 26)),
            'Family' . chr(97 + (($i * 7) % 26)),
            sprintf('2015-%02d-%02d', 1 + ($i % 12), 1 + ($i % 28)),
            sprintf('1%05d', $i),
            '',
            '04',
            's',
        );
    }
    $linkage = Matcher::link([$row], $known);
    expect($linkage->candidates('r'))
        ->toBe([])
        ->and($linkage->apart('r')[1] ?? '')
        ->toBe("Noor Haddad: $word");
})->with([
    'a twin' => [new Subject('r', 'Tobias', 'Haddad', '2016-03-08', '', '', '04', 's', ['ann@x.example']), 'a twin'],
    'a sibling' => [
        new Subject('r', 'Tobias', 'Haddad', '2018-01-02', '', '', '02', 's', ['ann@x.example']),
        'a brother or sister',
    ],
    'a namesake' => [
        new Subject('r', 'Noor', 'Haddad', '2014-11-30', '030001', '', '06', 's'),
        'a namesake, birth date and student number differ',
    ],
]);

it('knows names in their other forms and scripts', function (
    string $given,
    string $family,
    string $date,
    string $is,
): void {
    $known = [
        new Subject('k', 'Wilhelmina', 'Müller', '2016-03-08', '', '', '04', 's'),
        new Subject('l', 'Mohammed', 'al-Sayed', '2016-03-09', '', '', '04', 's'),
        new Subject('m', 'Oleksandr', 'Шевчук', '2016-03-10', '', '', '04', 's'),
    ];
    for ($i = 0; $i < 300; $i++) {
        $known[] = new Subject(
            "c$i",
            'Given' . chr(97 + ($i % 26)),
            'Family' . chr(97 + (($i * 7) % 26)),
            sprintf('2015-%02d-%02d', 1 + ($i % 12), 1 + ($i % 28)),
            '',
            '',
            '04',
            's',
        );
    }
    $found = Matcher::link([new Subject('r', $given, $family, $date, '', '', '04', 's')], $known)->assigned('r');
    expect($found?->subject->id)->toBe($is)->and($found?->sure())->toBeTrue();
})->with([
    ['Billie', 'Mueller', '2016-03-08', 'k'],
    ['MINA', 'MULLER', '2016-03-08', 'k'],
    ['محمد', 'al Sayed', '2016-03-09', 'l'],
    ['Mohamed', 'Alsayed', '2016-03-09', 'l'],
    ['Alexander', 'Shevchuk', '2016-03-10', 'm'],
    ['Саша', 'Шевчук', '2016-03-10', 'm'],
]);

it('asks about a row that gives initials only, and does not lose it', function (): void {
    $known = [new Subject('k', 'Wilhelmina', 'Seabright', '', '', '', '04', 's')];
    for ($i = 0; $i < 200; $i++) {
        $known[] = new Subject(
            "c$i",
            'Given' . chr(97 + ($i % 26)) . chr(97 + intdiv($i, 26)),
            'Family' . chr(97 + (($i * 7) % 26)),
            '',
            '',
            '',
            '04',
            's',
        );
    }
    expect(
        Matcher::link([new Subject('r', 'Wilhelmina', 'S.', '', '', '', '04', 's')], $known)->candidates('r')[0]
            ->subject->id,
    )->toBe('k');
});

it('cuts the weakest link of a cluster that contradicts itself', function (): void {
    $numbers = ['a' => '1', 'b' => '', 'c' => '2', 'd' => '', 'e' => '9', 'f' => '9'];
    $apart = fn(string $x, string $y): bool => $numbers[$x] !== '' &&
        $numbers[$y] !== '' &&
        $numbers[$x] !== $numbers[$y];
    expect(Clusters::of([['a', 'b', 0.9], ['b', 'c', 0.7], ['c', 'd', 0.8], ['e', 'f', 0.99]], $apart))
        ->toBe([['a', 'b'], ['c', 'd'], ['e', 'f']])
        ->and(Clusters::of([['a', 'b', 0.6], ['b', 'c', 0.7]], $apart))
        ->toBe([['b', 'c']])
        ->and(Clusters::of([], $apart))
        ->toBe([]);
});

it('leaves no contradiction in any cluster, whatever the links', function (int $seed): void {
    mt_srand($seed);
    $number = array_map(fn(): int => mt_rand(0, 3), range(0, 11));
    $apart = fn(string $x, string $y): bool => $number[(int) $x] > 0 &&
        $number[(int) $y] > 0 &&
        $number[(int) $x] !== $number[(int) $y];
    $links = array_map(
        fn(): array => [(string) mt_rand(0, 11), (string) mt_rand(0, 11), mt_rand(50, 99) / 100],
        range(0, 14),
    );
    $links = array_values(array_filter($links, fn(array $l): bool => $l[0] !== $l[1] && !$apart($l[0], $l[1])));
    $seen = [];
    foreach (Clusters::of($links, $apart) as $cluster) {
        foreach ($cluster as $i => $x) {
            expect($seen)->not->toHaveKey("m$x");
            $seen["m$x"] = true;
            foreach (array_slice($cluster, $i + 1) as $y) {
                expect($apart($x, $y))->toBeFalse();
            }
        }
    }
    expect(count($seen))->toBeLessThanOrEqual(12);
})->with(range(1, 30));

it('finds the m that data were drawn with', function (): void {
    mt_srand(7);
    $m = [
        'birth date' => ['alike' => 0.8, 'one digit' => 0.15, 'differs' => 0.05],
        'student number' => ['alike' => 0.9, 'differs' => 0.1],
        'grade' => ['alike' => 0.3, 'next' => 0.65, 'differs' => 0.05],
    ];
    $u = [
        'birth date' => ['alike' => 0.002, 'one digit' => 0.03, 'differs' => 0.968],
        'student number' => ['alike' => 0.0005, 'differs' => 0.9995],
        'grade' => ['alike' => 0.1, 'next' => 0.1, 'differs' => 0.8],
    ];
    $draw = function (array $levels): string {
        $at = mt_rand() / mt_getrandmax();
        foreach ($levels as $level => $share) {
            if (($at -= $share) <= 0) {
                return $level;
            }
        }

        return (string) array_key_last($levels);
    };
    $counts = [];
    for ($i = 0; $i < 30_000; $i++) {
        $from = mt_rand(1, 100) <= 20 ? $m : $u;
        $key = json_encode(array_map($draw, $from));
        $counts[$key] = ($counts[$key] ?? 0) + 1;
    }
    $patterns = array_map(fn(string $k): array => [json_decode($k, true), $counts[$k]], array_keys($counts));
    $found = Estimation::of($patterns, Weights::published(), $u);
    expect($found->share)->toEqualWithDelta(0.2, 0.01);
    foreach ($m as $field => $levels) {
        foreach ($levels as $level => $share) {
            expect($found->m[$field][$level])->toEqualWithDelta($share, 0.02);
        }
    }
});
