<?php

declare(strict_types=1);

use Random\Engine\Mt19937;
use Random\Randomizer;
use Tests\Support\RandomSchool;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\IntakePlanner;
use Vantrel\Core\Intake\IntakeWish;
use Vantrel\Core\Intake\ListContents;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Entity;

/** @param  list<StudentLine>  $lines */
function planOfGuardians(array $lines, Snapshot $snapshot): Plan
{
    return IntakePlanner::plan(
        new ListContents($lines),
        $snapshot,
        new IntakeWish('List', 'school', 'year', '2026-10-01'),
        new Ids('01K3CNQ0000000000000000000'),
        new UserNames([], []),
    );
}

/** @param  list<GuardianLine>  $guardians */
function childOf(array $guardians, int $row = 2): StudentLine
{
    return new StudentLine(
        $row,
        new PersonName('Corin', 'Quill'),
        '040001',
        '2017-03-03',
        '03',
        '3 Heron',
        [],
        '',
        $guardians,
        [],
    );
}

/** @return list<string> the guardians a plan adds, in order, as `name|mail|phone` */
function guardiansAdded(Plan $plan): array
{
    $added = array_filter(
        $plan->changes,
        fn(Change $c): bool => $c->entity === Entity::Person && ($c->after['kind'] ?? '') === 'guardian',
    );

    return array_values(
        array_map(
            fn(Change $c): string => "{$c->after['search_name']}|{$c->after['email']}|{$c->after['phone']}",
            $added,
        ),
    );
}

it('takes guardians of one row as the plain rule does, pair by pair', function (int $seed): void {
    $random = new Randomizer(new Mt19937($seed));
    $guardians = [];
    for ($i = 0; $i < 12; $i++) {
        $mail = ['', '', 'a@x.example', 'b@x.example', 'c@x.example'][$random->getInt(0, 4)];
        $phone = $mail === '' ? ['', '+12025550101', '+12025550102'][$random->getInt(0, 2)] : '';
        $guardians[] = new GuardianLine(
            new PersonName(['Ann', 'Bea', 'Cem'][$random->getInt(0, 2)], 'Quill'),
            $mail,
            $phone,
        );
    }
    // One is another one before it if the names are alike and neither has an address the other has not.
    $found = [];
    foreach ($guardians as $guardian) {
        foreach ($found as $i => $other) {
            if (
                NameKey::of($other->name->full()) === NameKey::of($guardian->name->full()) &&
                ($other->email === '' || $guardian->email === '' || $other->email === $guardian->email)
            ) {
                $found[$i] = new GuardianLine(
                    $other->name,
                    $other->email ?: $guardian->email,
                    $other->phone ?: $guardian->phone,
                );

                continue 2;
            }
        }
        $found[] = $guardian;
    }
    $snapshot = (new RandomSchool(1, 0))->snapshot;
    // Alone, each of them is taken as it stands: the rule under test has nothing left to do.
    expect(guardiansAdded(planOfGuardians([childOf($guardians)], $snapshot)))
        ->toBe(guardiansAdded(planOfGuardians([childOf($found)], $snapshot)))
        ->and(count($found))
        ->toBeLessThan(12);
})->with(range(1, 30));

it('takes a row for each guardian as one row with all of them', function (): void {
    $guardians = array_map(
        fn(int $i): GuardianLine => new GuardianLine(
            new PersonName('Ann' . chr(97 + ($i % 26)) . chr(97 + intdiv($i, 26)), 'Quill'),
            "ann$i@x.example",
            '',
        ),
        range(0, 299),
    );
    $snapshot = (new RandomSchool(1, 0))->snapshot;
    $rows = planOfGuardians(
        array_map(
            fn(GuardianLine $g, int $i): StudentLine => childOf([$g], $i + 2),
            $guardians,
            array_keys($guardians),
        ),
        $snapshot,
    );
    $one = planOfGuardians([childOf($guardians)], $snapshot);
    expect(guardiansAdded($rows))
        ->toBe(guardiansAdded($one))
        ->toHaveCount(300)
        ->and($rows->countOf(Entity::Guardianship))
        ->toBe(300);
    // Brought in again, each is known as the student's own.
    $again = planOfGuardians([childOf($guardians)], $snapshot->with($one));
    expect($again->changes)->toBe([]);
});

it('knows the student’s own guardian by name, and by phone where there is no name', function (
    GuardianLine $says,
    string $does,
): void {
    $snapshot = (new RandomSchool(1, 0))->snapshot;
    $known = $snapshot->with(
        planOfGuardians(
            [childOf([new GuardianLine(new PersonName('Ann', 'Quill'), 'ann@x.example', '+12025550101')])],
            $snapshot,
        ),
    );
    $plan = planOfGuardians([childOf([$says])], $known);
    expect(
        $plan->countOf(Entity::Guardianship) > 0
            ? (count($plan->changes) > 1
                ? 'adds'
                : 'changes')
            : ($plan->changes === []
                ? 'same'
                : 'changes'),
    )->toBe($does);
})->with([
    'by name' => [new GuardianLine(new PersonName('ann', 'QUILL'), '', ''), 'same'],
    'by phone alone' => [new GuardianLine(new PersonName('', ''), '', '+12025550101'), 'same'],
    'by address alone' => [new GuardianLine(new PersonName('', ''), 'ann@x.example', ''), 'same'],
    'another address' => [new GuardianLine(new PersonName('Ann', 'Quill'), 'other@x.example', ''), 'changes'],
    'another name' => [new GuardianLine(new PersonName('Bea', 'Quill'), '', '+12025550101'), 'adds'],
    'a relationship' => [new GuardianLine(new PersonName('Ann', 'Quill'), '', '', 'mother'), 'changes'],
]);

it('takes another address of the student’s guardian for a change, where nothing speaks against it', function (
    array $known,
    array $says,
    array $added,
    array $mails,
): void {
    $lines = fn(array $guardians): array => array_map(
        fn(array $g): GuardianLine => new GuardianLine(new PersonName($g[0], 'Quill'), $g[1], ''),
        $guardians,
    );
    $snapshot = (new RandomSchool(1, 0))->snapshot;
    $before = $snapshot->with(planOfGuardians([childOf($lines($known))], $snapshot));
    $plan = planOfGuardians([childOf($lines($says))], $before);
    expect(guardiansAdded($plan))
        ->toBe($added)
        ->and(
            array_values(
                array_map(
                    fn(Change $c): string => (string) $c->after['email'],
                    array_filter(
                        $plan->changes,
                        fn(Change $c): bool => $c->entity === Entity::Person && !isset($c->after['kind']),
                    ),
                ),
            ),
        )
        ->toBe($mails);
})->with([
    'one of that name' => [[['Ann', 'ann@x.example']], [['Ann', 'new@x.example']], [], ['new@x.example']],
    'the row gives the old one too' => [
        [['Ann', 'ann@x.example']],
        [['Ann', 'ann@x.example'], ['Ann', 'new@x.example']],
        ['ann quill|new@x.example|'],
        [],
    ],
    'two of that name' => [
        [['Ann', 'ann@x.example'], ['Ann', 'ann2@x.example']],
        [['Ann', 'new@x.example']],
        ['ann quill|new@x.example|'],
        [],
    ],
    'the other parent’s address' => [
        [['Ann', 'ann@x.example'], ['Bo', 'bo@x.example']],
        [['Ann', 'bo@x.example']],
        ['ann quill|bo@x.example|'],
        [],
    ],
]);
