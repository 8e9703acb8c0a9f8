<?php

declare(strict_types=1);

use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Matching\Clusters;
use Vantrel\Core\Matching\Population;
use Vantrel\Core\Matching\Subject;

it('cuts the weakest link on the way between two who contradict each other', function (): void {
    $apart = fn(string ...$pairs): Closure => fn(string $a, string $b): bool => in_array("$a$b", $pairs, true) ||
        in_array("$b$a", $pairs, true);
    // By way of c the two are linked more strongly: there the cut is made, not at the weak link beside it.
    $links = [['a', 'b', 0.5], ['a', 'c', 0.9], ['c', 'b', 0.8]];
    expect(Clusters::of($links, $apart()))
        ->toBe([['a', 'b', 'c']])
        ->and(Clusters::of($links, $apart('ab')))
        ->toBe([['a', 'c']])
        ->and(Clusters::of([['p', 'q', 0.9], ['q', 'r', 0.7], ['r', 's', 0.8]], $apart('ps')))
        ->toBe([['p', 'q'], ['r', 's']])
        ->and(Clusters::of([['p', 'q', 0.9], ['q', 'r', 0.9], ['r', 's', 0.9]], $apart('pq')))
        ->toBe([['q', 'r', 's']])
        ->and(Clusters::of([['z', 'y', 0.9], ['b', 'a', 0.9]], $apart()))
        ->toBe([['a', 'b'], ['y', 'z']]);
});

it('leaves no contradiction in a cluster, nobody in two, and breaks nothing that agrees', function (): void {
    $random = new KeyedStream(str_repeat('k', 32), 'clusters');
    for ($round = 0; $round < 150; $round++) {
        $links = $apart = [];
        for ($n = 0; $n < 1 + $random->below(12); $n++) {
            [$a, $b] = ['m' . $random->below(8), 'm' . $random->below(8)];
            if ($a !== $b) {
                $links[] = [$a, $b, (1 + $random->below(99)) / 100];
            }
        }
        for ($n = 0; $n < $random->below(4); $n++) {
            $apart['m' . $random->below(8) . 'm' . $random->below(8)] = true;
        }
        $contradict = fn(string $a, string $b): bool => isset($apart["$a$b"]) || isset($apart["$b$a"]);
        $clusters = Clusters::of($links, $contradict);
        $all = array_merge(...$clusters);
        expect(array_unique($all))->toBe($all);
        foreach ($clusters as $members) {
            expect(count($members))->toBeGreaterThan(1);
            foreach ($members as $i => $a) {
                foreach (array_slice($members, $i + 1) as $b) {
                    expect($contradict($a, $b))->toBeFalse();
                }
            }
        }
        $whole = Clusters::of($links, fn(): bool => false);
        foreach ($whole as $members) {
            $free = true;
            foreach ($members as $a) {
                foreach ($members as $b) {
                    $free = $free && !($a !== $b && $contradict($a, $b));
                }
            }
            expect(!$free || in_array($members, $clusters, true))->toBeTrue();
        }
    }
});

it('counts how common a value is, within limits that no small school leaves', function (): void {
    $population = new Population();
    expect($population->given('noor'))
        ->toBe(1 / 200)
        ->and($population->school('s'))
        ->toBe(0.05)
        ->and($population->grade('s'))
        ->toBe(1 / 3)
        ->and($population->section([]))
        ->toBe(6 / 50)
        ->and($population->contact(['a@x.example']))
        ->toBe(0.25 / 200);
    for ($i = 0; $i < 100; $i++) {
        $grade = sprintf('%02d', 1 + ($i % 14));
        $population->add(
            new Subject("c$i", $i < 60 ? 'Noor' : 'Kai', 'Ek', grade: $i < 42 ? $grade : '', schoolId: 's'),
        );
    }
    $population->add(new Subject('other', 'Jo', 'Haddad', schoolId: 't', sections: ['art', 'choir']));
    $population->add(new Subject('third', 'Jo', 'Haddad', grade: '04', schoolId: 't', sections: ['art']));
    expect($population->people)
        ->toBe(102)
        ->and($population->given('jo'))
        ->toBe(3 / 302)
        ->and($population->given('kai'))
        ->toBe(41 / 302)
        // As common as a fifth at most.
        ->and($population->given('noor'))
        ->toBe(0.2)
        ->and($population->family('haddad'))
        ->toBe(3 / 302)
        ->and($population->school('s'))
        ->toBe(0.95)
        ->and($population->school('t'))
        ->toBe(0.05)
        // Of fourteen grades no more than thirteen count.
        ->and($population->grade('s'))
        ->toBe(1 / 13)
        ->and($population->grade('t'))
        ->toBe(1 / 3)
        ->and($population->section(['art']))
        ->toBe(7 / 152)
        ->and($population->section(['art', 'choir']))
        ->toBe(6 / 152);
    $population->countContact('office@x.example', 40);
    $population->countContact('ann@x.example', 3);
    expect($population->contact(['office@x.example']))
        ->toBe(34.25 / 302)
        ->and($population->contact(['office@x.example', 'ann@x.example']))
        ->toBe(0.25 / 302);
});
