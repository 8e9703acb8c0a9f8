<?php

declare(strict_types=1);

use Tests\Support\RandomSchool;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Intake\IntakePlanner;
use Vantrel\Core\Intake\IntakeWish;
use Vantrel\Core\Intake\ListContents;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\YearTurn\YearTurnPlanner;
use Vantrel\Core\YearTurn\YearTurnWish;

const SEED = '01K3CNQ0000000000000000000';

/**
 * @param  list<Vantrel\Core\Intake\StudentLine>  $lines
 * @param  array<string, string>  $answers
 */
function intake(array $lines, Snapshot $snapshot, array $answers = []): Plan
{
    $taken = array_fill_keys(
        array_map(fn(Record $r): string => $r->field('user_name'), array_values($snapshot->all(SignIn::class))),
        true,
    );

    return IntakePlanner::plan(
        new ListContents($lines),
        $snapshot,
        new IntakeWish('List', 'school', 'year', '2026-10-01', $answers),
        new Ids(SEED),
        new UserNames($taken, []),
    );
}

/** @return array<string, string> an answer at random to every open question */
function answers(Plan $plan, int $seed): array
{
    mt_srand($seed);
    $answers = [];
    foreach ($plan->openQuestions() as $question) {
        $answers[$question->id] = $question->choices[mt_rand(0, count($question->choices) - 1)]->key;
    }

    return $answers;
}

function yearTurn(Snapshot $snapshot): Plan
{
    $wish = new YearTurnWish(
        'school',
        'year',
        '2027-28',
        '2027-08-23',
        '2028-06-10',
        [3, 4, 5],
        ['p0001'],
        true,
        '2027-06-20',
        '2027-06-20 00:00:00',
    );

    return YearTurnPlanner::plan(
        $snapshot,
        $wish,
        new CodeBook(new KeyedStream(str_repeat('k', 32), 'turn'), [], 4, 100),
        new Ids(SEED),
    );
}

dataset('seeds', range(1, 40));

it('makes an empty plan of an applied list', function (int $seed): void {
    $school = new RandomSchool($seed);
    $lines = $school->list();
    $answers = answers(intake($lines, $school->snapshot), $seed);
    $plan = intake($lines, $school->snapshot, $answers);
    $after = $school->snapshot->with($plan);
    $again = intake($lines, $after, $answers);
    expect(
        array_map(
            fn(Change $c): string => "{$c->entity->value} {$c->reason} " . json_encode($c->after),
            $again->changes,
        ),
    )->toBe([]);
})->with('seeds');

it('gives the snapshot back when a list is undone', function (int $seed): void {
    $school = new RandomSchool($seed);
    $lines = $school->list();
    $plan = intake($lines, $school->snapshot, answers(intake($lines, $school->snapshot), $seed));
    expect(RandomSchool::contents($school->snapshot->with($plan)->without($plan)))->toBe(
        RandomSchool::contents($school->snapshot),
    );
})->with('seeds');

it('gives the same plan byte for byte from the same facts', function (int $seed): void {
    $lines = (new RandomSchool($seed))->list();
    $one = intake($lines, (new RandomSchool($seed))->snapshot);
    $two = intake($lines, (new RandomSchool($seed))->snapshot);
    expect(json_encode($one, JSON_THROW_ON_ERROR))
        ->toBe(json_encode($two, JSON_THROW_ON_ERROR))
        ->and($one->fingerprint())
        ->toBe($two->fingerprint());
})->with([1, 2, 3]);

it('gives every row one verdict, and touches nobody who is not in the list', function (int $seed): void {
    $school = new RandomSchool($seed);
    $lines = $school->list();
    $plan = intake($lines, $school->snapshot);
    expect(count($plan->rows))->toBe(count($lines));
    $matched = [];
    foreach ($plan->rows as $row) {
        $matched[(string) $row->matchId] = true;
    }
    foreach ($plan->changes as $change) {
        if (
            $change->entity === Entity::Person &&
            !$change->inserts() &&
            $school->snapshot->find(Person::class, $change->id)?->field('kind') === 'student'
        ) {
            expect($matched)->toHaveKey($change->id);
        }
    }
})->with('seeds');

it('never puts two rows of a list on one student', function (int $seed): void {
    $plan = intake((new RandomSchool($seed))->list(60), (new RandomSchool($seed))->snapshot);
    $claimed = [];
    foreach ($plan->rows as $row) {
        if ($row->matchId !== null && in_array($row->verdict->value, ['update', 'same'], true)) {
            expect($claimed)->not->toHaveKey((string) $row->matchId);
            $claimed[(string) $row->matchId] = true;
        }
    }
})->with('seeds');

it('brings accounts back when a merge is undone, and merges nothing twice', function (int $seed): void {
    $school = new RandomSchool($seed);
    $plan = MergePlanner::plan($school->snapshot, ['p0002', 'p0003', 'p0005'])->plan;
    $after = $school->snapshot->with($plan);
    expect(RandomSchool::contents($after->without($plan)))
        ->toBe(RandomSchool::contents($school->snapshot))
        ->and(fn() => MergePlanner::plan($after, ['p0002', 'p0003', 'p0005'])->plan)
        ->toThrow(Refusal::class, 'merged already');
    $accounts = ['p0002', 'p0003', 'p0005'];
    $left = array_filter(
        $accounts,
        fn(string $id): bool => $after->find(Person::class, $id)?->field('state') !== 'merged',
    );
    expect($left)->toHaveCount(1);
    $survivor = reset($left);
    foreach (['sp0002', 'sp0003', 'sp0005'] as $signIn) {
        expect($after->find(SignIn::class, $signIn)?->field('person_id'))->toBe($survivor);
    }
    $open = [];
    foreach ($after->where(Enrollment::class, 'person_id', $survivor) as $enrollment) {
        if ($enrollment->field('ends_on') === null) {
            $open[] = $enrollment->field('section_id');
        }
    }
    expect(count(array_unique($open)))->toBe(count($open));
})->with('seeds');

it('gives the year back when its turn is undone, and turns it only once', function (int $seed): void {
    $school = new RandomSchool($seed);
    $plan = yearTurn($school->snapshot);
    $after = $school->snapshot->with($plan);
    expect(RandomSchool::contents($after->without($plan)))->toBe(RandomSchool::contents($school->snapshot));
    $again = yearTurn($after);
    expect($again->isEmpty())->toBeTrue()->and($again->blockers[0])->toContain('already');
    // Every code that worked is dead, every new section has one that works and its teachers.
    foreach ($school->snapshot->all(JoinCode::class) as $code) {
        expect($after->find(JoinCode::class, $code->id)?->field('state'))->toBe('closed');
    }
    foreach ($after->where(Section::class, 'state', 'open') as $section) {
        expect($after->where(JoinCode::class, 'section_id', $section->id))
            ->toHaveCount(1)
            ->and($after->where(Enrollment::class, 'section_id', $section->id))
            ->toHaveCount(1)
            ->and($section->field('carried_from'))
            ->not->toBe('');
    }
})->with('seeds');
