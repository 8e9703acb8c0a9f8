<?php

declare(strict_types=1);

use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;

/** @return list<Subject> 300 students who are not the point */
function crowd(): array
{
    $crowd = [];
    for ($i = 0; $i < 300; $i++) {
        $crowd[] = new Subject(
            "c$i",
            'Given' . chr(97 + ($i % 26)) . chr(97 + intdiv($i, 26)),
            'Family' . chr(97 + (($i * 7) % 26)) . chr(97 + ($i % 11)),
            sprintf('2015-%02d-%02d', 1 + ($i % 12), 1 + ($i % 28)),
            sprintf('1%05d', $i),
            '',
            '04',
            's',
            ["crowd$i@x.example"],
        );
    }

    return $crowd;
}

function noor(string $id = 'noor', mixed ...$with): Subject
{
    return new Subject(
        ...[
            ...[
                'id' => $id,
                'given' => 'Noor',
                'family' => 'Haddad',
                'birthDate' => '2015-08-03',
                'number' => '020417',
                'email' => '',
                'grade' => '04',
                'schoolId' => 's',
                'contacts' => ['ann@x.example'],
            ],
            ...$with,
        ],
    );
}

/** What the matcher makes of one row against one known student in a school of 301. */
function verdict(Subject $row, Subject $known): string
{
    $found = Matcher::link([$row], [...crowd(), $known])->candidates($row->id);
    if ($found === []) {
        return 'new';
    }

    return $found[0]->sure() ? 'same' : 'ask';
}

it('knows a student by everything, and by little', function (Subject $row, string $verdict): void {
    expect(verdict($row, noor()))->toBe($verdict);
})->with([
    'everything' => [noor('row'), 'same'],
    'number and name' => [noor('row', birthDate: '', contacts: [], grade: ''), 'same'],
    'no number' => [noor('row', number: ''), 'same'],
    'a typing slip in the name' => [noor('row', given: 'Nooor', number: ''), 'same'],
    'accents and case' => [noor('row', given: 'NOOR', family: 'Häddad', number: ''), 'same'],
    'birth date turned round' => [noor('row', birthDate: '2015-03-08', number: ''), 'same'],
    'names swapped, birth date agrees' => [noor('row', given: 'Haddad', family: 'Noor', number: ''), 'same'],
    'half of a double family name' => [noor('row', family: 'Haddad Amin', number: ''), 'same'],
    'one grade up' => [noor('row', grade: '05', number: ''), 'same'],
    'an initial, with guardian and birth date' => [noor('row', given: 'N', number: ''), 'same'],
    'another number' => [noor('row', number: '099999'), 'ask'],
    'another birth date' => [noor('row', number: '', birthDate: '2015-12-24', contacts: []), 'ask'],
    'the same number, another given name' => [noor('row', given: 'Tobias'), 'ask'],
    'another person altogether' => [
        noor('row', given: 'Kai', family: 'Wu', number: '', birthDate: '2015-01-09', contacts: []),
        'new',
    ],
]);

it('never takes a twin or a sibling for the same child', function (): void {
    $twin = noor('row', given: 'Amal', number: '');
    expect(verdict($twin, noor()))
        ->toBe('new')
        ->and(Matcher::link([noor('x')], [noor()])->judge($twin, noor())->caution)
        ->toBe('the given name is another');
    expect(verdict(noor('row', given: 'Amal', number: '', birthDate: '2017-02-01', grade: '02'), noor()))->toBe('new');
});

it('weighs a rare family name more than a common one', function (): void {
    $many = array_map(
        fn(int $i): Subject => noor(
            "m$i",
            given: "Other$i",
            family: 'Nguyen',
            number: "3$i",
            birthDate: '',
            contacts: [],
        ),
        range(1, 40),
    );
    $matcher = Matcher::link([noor('r1')], [...crowd(), ...$many, noor(), noor('ng', family: 'Nguyen', number: '5')]);
    $weight = fn(Subject $a, Subject $b): float => collectWeight($matcher->judge($a, $b)->evidence, 'family name');
    expect($weight(noor('r1'), noor()))->toBeGreaterThan(
        $weight(noor('r2', family: 'Nguyen'), noor('ng', family: 'Nguyen')) + 2,
    );
});

/** @param  list<Evidence>  $evidence */
function collectWeight(array $evidence, string $field): float
{
    foreach ($evidence as $e) {
        if ($e->field === $field) {
            return $e->weight;
        }
    }

    return 0.0;
}

it('gives a missing value no weight', function (): void {
    foreach (
        Matcher::link([noor('x')], [noor()])->judge(
            noor('row', number: '', birthDate: '', grade: '', contacts: []),
            noor(),
        )->evidence
        as $e
    ) {
        expect($e->left === '' || $e->right === '' ? $e->weight : 1.0)->toBe(
            $e->left === '' || $e->right === '' ? 0.0 : 1.0,
        );
    }
});

it('states its probability from the prior and the bits', function (): void {
    $candidate = Matcher::link([], [...crowd(), noor()])->judge(noor('row', number: '', contacts: []), noor());
    $bits = array_sum(array_map(fn(Evidence $e): float => $e->weight, $candidate->evidence));
    $odds = 2 ** $bits / 301;
    // Known or not is even before anything is looked at; the weight of a sibling's being meant is not in the bits
    // shown.
    expect($candidate->probability)
        ->toBeLessThanOrEqual($odds / (1 + $odds))
        ->toBeGreaterThan((0.99 * $odds) / (1 + $odds));
});

it('compares only those who share a block', function (): void {
    expect(Matcher::link([noor()], crowd())->candidates('noor'))->toBe([]);
});
