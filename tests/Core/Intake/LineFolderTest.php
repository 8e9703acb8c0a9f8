<?php

declare(strict_types=1);

use Tests\Support\Lists;
use Vantrel\Core\Intake\LineFolder;
use Vantrel\Core\Intake\StudentLine;

/** @param  array<string, string>  $said */
function folded(string $csv, array $said = ['t0.names' => 'given']): LineFolder
{
    return new LineFolder(Lists::contents($csv, $said)->students);
}

it('brings a row for each guardian, and a row for each section, together', function (): void {
    $guardians = folded(
        "Student number,Name,Guardian,Guardian e-mail\n020417,Noor Haddad,Ann Haddad,ann@x.example\n" .
            "020417,Noor Haddad,Sami Haddad,sami@x.example\n",
    );
    expect($guardians->students())
        ->toHaveCount(1)
        ->and($guardians->students()[0]->guardians)
        ->toHaveCount(2)
        ->and($guardians->joined())
        ->toBe(['#3' => '#2']);
    $sections = folded("Name,Birth date,Section\nNoor Haddad,2016-03-08,Art 4\nNoor Haddad,2016-03-08,Music 4\n");
    expect($sections->students()[0]->sections)->toBe(['Art 4', 'Music 4']);
});

it('keeps out what repeats or contradicts another row, and says which', function (
    string $csv,
    string $column,
    string $says,
): void {
    $folder = folded($csv);
    [$line, $problem, $why] = array_values($folder->refused())[0];
    expect($line->number)
        ->toBe(3)
        ->and($problem->column)
        ->toBe($column)
        ->and($problem->message)
        ->toContain($says)
        ->and($folder->students())
        ->toHaveCount(1);
})->with([
    'the same row twice' => [
        "Student number,Name,Grade\n020417,Noor Haddad,4\n020417,Noor Haddad,4\n",
        '',
        'says the same of Noor Haddad',
    ],
    'one number, two names' => [
        "Student number,Name,Grade\n020417,Noor Haddad,4\n020417,Kai Wu,4\n",
        'student number',
        'gives the number 020417 to Noor Haddad',
    ],
    'one student, two grades' => [
        "Student number,Name,Grade\n020417,Noor Haddad,4\n020417,Noor Haddad,5\n",
        'grade',
        'with another grade: 04, and 05 here',
    ],
    'one student, two homerooms' => [
        "Student number,Name,Homeroom\n020417,Noor Haddad,4 Heron\n020417,Noor Haddad,4 Tern\n",
        'homeroom',
        '4 Heron, and 4 Tern here',
    ],
]);

it('leaves namesakes apart', function (string $csv): void {
    expect(folded($csv)->students())->toHaveCount(2);
})->with([
    'two numbers' => ["Student number,Name\n020417,Noor Haddad\n020418,Noor Haddad\n"],
    'two birth dates' => ["Name,Birth date\nNoor Haddad,2016-03-08\nNoor Haddad,2016-03-09\n"],
    'two grades' => ["Name,Grade\nNoor Haddad,3\nNoor Haddad,4\n"],
]);

it('takes an address that several students, or a guardian, have for nobody’s own', function (): void {
    $shared = folded(
        "Name,Student e-mail\nNoor Haddad,family@x.example\nAmal Haddad,family@x.example\nKai Wu,kai@x.example\n",
    )->students();
    expect(array_map(fn(StudentLine $l): string => $l->email, $shared))
        ->toBe(['', '', 'kai@x.example'])
        ->and($shared[0]->problems[0]->message)
        ->toContain('beside 2 students (row 3 too)')
        ->and($shared[0]->stopped())
        ->toBeFalse();
    $guardians = folded(
        "Name,Student e-mail,Guardian,Guardian e-mail\nNoor Haddad,ann@x.example,Ann Haddad,ann@x.example\n",
    )->students()[0];
    expect($guardians->email)
        ->toBe('')
        ->and($guardians->guardians[0]->email)
        ->toBe('ann@x.example')
        ->and($guardians->problems[0]->message)
        ->toContain('guardian’s too');
});

it('keys rows that say the same of who they are apart', function (): void {
    $lines = folded("Name,Grade,Guardian\nNoor Haddad,3,Ann Haddad\nNoor Haddad,3,Bo Haddad\n")->students();
    expect($lines)->toHaveCount(2)->and($lines[0]->key())->not->toBe($lines[1]->key());
});

it('knows the roster of a section that came back, and no other list', function (): void {
    expect(Lists::contents("Account key,Name,Homeroom\nA1,Noor Haddad,4 Heron\nA2,Kai Wu,4 Heron\n")->rosterOf())
        ->toBe('4 Heron')
        ->and(Lists::contents("Account key,Name,Homeroom\nA1,Noor Haddad,4 Heron\nA2,Kai Wu,4 Tern\n")->rosterOf())
        ->toBeNull()
        ->and(Lists::contents("Name,Homeroom\nNoor Haddad,4 Heron\nKai Wu,4 Heron\n")->rosterOf())
        ->toBeNull();
});
