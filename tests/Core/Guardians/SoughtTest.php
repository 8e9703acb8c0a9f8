<?php

declare(strict_types=1);

use Vantrel\Core\Guardians\Sought;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Names\PersonName;

function maybe(string $id, string $given, string $family, string $born): Candidate
{
    return new Candidate(new Subject($id, $given, $family, $born), [], 0.5, '');
}

it('finds the one student of that name and that day of birth', function (): void {
    $sought = new Sought(new PersonName('Billy', 'Okonjo'), '2015-09-03');
    $candidates = [
        maybe('a', 'William', 'Okonjo', '2015-09-03'),
        maybe('b', 'Billy', 'Okonjo', '2015-09-13'),
        maybe('c', 'Petra', 'Okonjo', '2015-09-03'),
    ];
    expect($sought->found($candidates))->toBe('a');
});

it('leaves to a person what might be two, or another day', function (): void {
    $sought = new Sought(new PersonName('Ana', 'Marchetti'), '2015-09-03');
    expect(
        $sought->found([maybe('a', 'Ana', 'Marchetti', '2015-09-03'), maybe('b', 'Anna', 'Marchetti', '2015-09-03')]),
    )
        ->toBeNull()
        ->and($sought->found([maybe('a', 'Ana', 'Marchetti', '2015-03-09')]))
        ->toBeNull()
        ->and($sought->found([maybe('a', 'Ana', 'Marchetti', '')]))
        ->toBeNull()
        ->and($sought->found([]))
        ->toBeNull();
});
