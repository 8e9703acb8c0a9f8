<?php

declare(strict_types=1);

use Vantrel\Core\Codes\ChosenCode;
use Vantrel\Core\Codes\CodeRule;
use Vantrel\Core\Door\Newcomer;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\SchoolRules;
use Vantrel\Core\Records\Section;

const AT = '2026-09-01 10:00:00';

function heron(string $state = 'open'): Section
{
    return new Section('sec', 1, ['school_id' => 'school', 'name' => '3 Heron', 'state' => $state, 'grade' => '03']);
}

/** @param  array<string, string|int|null>  $terms */
function doorCode(array $terms = []): JoinCode
{
    return new JoinCode('c1', 1, [
        'section_id' => 'sec',
        'state' => 'open',
        'who' => 'approval',
        'starts_at' => null,
        'ends_at' => null,
        'cap' => null,
        ...$terms,
    ]);
}

function child(string $state = 'active'): Person
{
    return new Person('noor', 1, [
        'given_name' => 'Noor',
        'family_name' => 'Haddad',
        'kind' => 'student',
        'state' => $state,
        'birth_date' => '2018-02-11',
        'number' => '020417',
    ]);
}

function school(string $check = 'birth_date', string $under13 = 'allow'): SchoolRules
{
    return new SchoolRules($check, false, $under13, ['lanternfield.example'], false);
}

function newcomer(
    ?string $born = '2010-05-04',
    ?string $mail = null,
    ?string $number = null,
    string $given = 'Marlo',
): Newcomer {
    return new Newcomer(new PersonName($given, 'Quill'), $born, $number, $mail, 'hash');
}

/** @return list<string> */
function tables(Plan $plan): array
{
    return array_map(fn(Change $c): string => $c->entity->value, $plan->changes);
}

/** @return list<string> rules that do not hold */
function broken(ChosenCode $judged): array
{
    return array_values(
        array_map(
            fn(CodeRule $r): string => $r->rule,
            array_filter($judged->rules, fn(CodeRule $r): bool => !$r->holds),
        ),
    );
}
