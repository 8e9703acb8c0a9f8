<?php

declare(strict_types=1);

use Vantrel\Core\Intake\NameChoice;
use Vantrel\Core\Intake\Scope;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Matching\Evidence;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Person;

it('never puts a poorer spelling in the place of what is on record', function (
    string $given,
    string $level,
    string $chosen,
): void {
    $line = new StudentLine(2, new PersonName($given, 'Haddad'), '', '', '', '', [], '', [], []);
    $name = NameChoice::of($line, new Person('p', 1, ['given_name' => 'José María', 'family_name' => 'Haddad']), [
        new Evidence('given name', $given, 'José María', $level, 1.0),
        new Evidence('family name', 'Haddad', 'Haddad', 'alike', 5.0),
    ]);
    expect([$name->given, $name->family])->toBe([$chosen, '']);
})->with([
    'lost accents' => ['Jose Maria', 'alike', ''],
    'a short form' => ['Pepe', 'other form', ''],
    'an initial' => ['J', 'initial only', ''],
    'half of it' => ['José', 'part of it', ''],
    'more of it' => ['José María Luis', 'part of it', 'José María Luis'],
    'another spelling' => ['Josué María', 'near', 'Josué María'],
]);

it('takes accents that the record lacks, and a sheet of its own at its word', function (): void {
    $record = new Person('p', 1, ['given_name' => 'Jose', 'family_name' => 'Haddad']);
    $evidence = [new Evidence('given name', 'José', 'Jose', 'alike', 6.0)];
    $line = fn(string $given, string $account): StudentLine => new StudentLine(
        2,
        new PersonName($given, 'Haddad'),
        '',
        '',
        '',
        '',
        [],
        '',
        [],
        [],
        account: $account,
    );
    expect(NameChoice::of($line('José', ''), $record, $evidence)->given)
        ->toBe('José')
        ->and(NameChoice::of($line('J', 'key'), $record, $evidence)->given)
        ->toBe('J')
        ->and(
            NameChoice::of($line('Haddad', ''), $record, [new Evidence('names swapped', '', '', 'alike', 9.0)])->full(),
        )
        ->toBe('');
});

it('reads whose whole list it is, and nothing it does not know', function (): void {
    expect((string) Scope::read('school'))
        ->toBe('school')
        ->and((string) Scope::read('grade:4'))
        ->toBe('grade:04')
        ->and(Scope::read('section:ABC')->sectionId)
        ->toBe('ABC')
        ->and(fn() => Scope::read('grade:nine'))
        ->toThrow(Refusal::class)
        ->and(fn() => Scope::read('section:'))
        ->toThrow(Refusal::class)
        ->and(fn() => Scope::read('everyone'))
        ->toThrow(Refusal::class);
});
