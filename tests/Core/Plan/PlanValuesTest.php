<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\RedoPlanner;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Relied;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Stay;
use Vantrel\Core\Plan\Undo;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Written;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;

function decide(string $id, ?string $answer = null): Question
{
    return new Question(
        $id,
        4,
        'Who is it?',
        'two fit',
        [new Choice('a', 'Ada'), new Choice('b', 'Bo')],
        answer: $answer,
    );
}

function changed(array $before = ['name' => 'A'], array $after = ['name' => 'B'], ?int $version = 3): Change
{
    return new Change(Entity::Section, 'sec', $version, $before, $after, 'renamed');
}

it('takes an answer that is one of its choices, and keeps all else', function (): void {
    $question = new Question('q', 4, 'Who?', 'two fit', [new Choice('a', 'Ada')], [], 0.4, null, 'Sheet 2', 'kind');
    $answered = $question->answered('a');
    expect($answered->answer)
        ->toBe('a')
        ->and($answered->open())
        ->toBeFalse()
        ->and([...(array) $answered, 'answer' => null])
        ->toBe((array) $question)
        ->and($question->answered('z'))
        ->toBe($question)
        ->and(decide('q')->sheet . decide('q')->pattern)
        ->toBe('');
});

it('counts its rows, its changes and what is open', function (): void {
    $row = fn(Verdict $v): PlanRow => new PlanRow(1, $v, []);
    $plan = new Plan(
        'T',
        'S',
        [changed(), new Change(Entity::Person, 'p', null, [], ['state' => 'active'], 'new')],
        [$row(Verdict::New), $row(Verdict::New), $row(Verdict::Leaving)],
        [decide('one', 'a'), decide('two')],
    );
    expect($plan->verdicts())
        ->toBe(['new' => 2, 'update' => 0, 'same' => 0, 'ask' => 0, 'cannot' => 0, 'leaving' => 1])
        ->and(array_map(fn(Question $q): string => $q->id, $plan->openQuestions()))
        ->toBe(['two'])
        ->and($plan->countOf(Entity::Section))
        ->toBe(1)
        ->and($plan->countOf(Entity::SignIn))
        ->toBe(0)
        ->and($plan->isEmpty())
        ->toBeFalse();
});

it('has another fingerprint where anything it does is another, and the same where only words are', function (): void {
    $of = fn(
        string $title = 'T',
        array $changes = [],
        array $questions = [],
        array $blockers = [],
        string $s = '',
    ): string => (new Plan($title, $s, $changes ?: [changed()], [], $questions, [], $blockers))->fingerprint();
    $all = [
        $of(),
        $of('U'),
        $of('T', [changed(after: ['name' => 'C'])]),
        $of('T', [changed(version: 4)]),
        $of('T', [], [decide('q')]),
        $of('T', [], [decide('q', 'a')]),
        $of('T', [], [], ['not now']),
        $of("T\u{00E9}"),
    ];
    expect(array_unique($all))->toHaveCount(count($all))->and($of(s: 'other words'))->toBe($of());
    // How likely it is that two are one moves with whoever else comes to the district.
    $sure = fn(float $probability): string => $of(
        questions: [new Question('q', 1, 'Is it?', '', [], probability: $probability)],
    );
    expect($sure(0.97))->toBe($sure(0.96));
    // Written out once: a plan looked at before an update of the program is the plan applied after it.
    expect((new Plan("Caf\u{00E9}", '', []))->fingerprint())->toBe(hash('sha256', '["Café",[],[],[]]'));
});

it('says which verdicts do something, and which wait', function (): void {
    $such = fn(callable $which): array => array_values(
        array_map(fn(Verdict $v): string => $v->value, array_filter(Verdict::cases(), $which)),
    );
    expect($such(fn(Verdict $v): bool => $v->acts()))
        ->toBe(['new', 'update', 'leaving', 'archived'])
        ->and($such(fn(Verdict $v): bool => $v->waits()))
        ->toBe(['ask', 'cannot']);
});

it('tells a cell that changes from one that stays', function (): void {
    expect((new Cell('a', 'b'))->differs())
        ->toBeTrue()
        ->and(Cell::same('a')->differs())
        ->toBeFalse();
});

it('can be undone for two weeks, a merge for years, and some things never', function (): void {
    expect(Action::Place->undoDays())
        ->toBe(14)
        ->and(Action::Merge->undoDays())
        ->toBe(1825)
        ->and(Action::Password->undoDays())
        ->toBeNull();
});

it('applies to a snapshot and comes off it again', function (): void {
    $section = new Section('sec', 3, ['name' => 'A', 'state' => 'open']);
    $snapshot = new Snapshot(['sections' => ['sec' => $section]], ['s' => 'Lanternfield']);
    $plan = new Plan('T', 'S', [
        changed(),
        new Change(Entity::Person, 'p', null, [], ['state' => 'active'], 'new'),
        new Change(Entity::Person, 'p', 1, ['state' => 'active'], ['state' => 'left'], 'gone'),
    ]);
    $after = $snapshot->with($plan);
    expect($after->find(Section::class, 'sec')?->values['name'])
        ->toBe('B')
        ->and($after->find(Section::class, 'sec')?->version)
        ->toBe(4)
        ->and($after->find(Person::class, 'p')?->version)
        ->toBe(2)
        ->and($after->without($plan))
        ->toEqual($snapshot)
        ->and($after->by(Person::class, 'grade'))
        ->toHaveKey('')
        ->and(array_keys($after->by(Section::class, 'name')))
        ->toBe(['B'])
        ->and($snapshot->find(Section::class, null))
        ->toBeNull();
    try {
        $snapshot->with(new Plan('T', 'S', [changed(version: 2)]));
    } catch (StalePlan $e) {
        expect($e->changed)->toBe(['sections sec']);
    }
    expect(fn() => $snapshot->with(new Plan('T', 'S', [changed(version: null)])))
        ->toThrow(StalePlan::class)
        ->and(fn() => (new Snapshot())->with(new Plan('T', 'S', [changed()])))
        ->toThrow(StalePlan::class);
});

it('folds what is written of a record several times, and refuses what makes no sense', function (): void {
    $plan = new PlanBuilder();
    $section = new Section('sec', 3, ['name' => 'A', 'state' => 'open', 'seats' => null]);
    $plan->insert(Entity::Person, 'p', ['state' => 'active'], 'new', 7);
    $plan->update(new Person('p', 1, ['state' => 'active']), ['state' => 'left'], 'ignored');
    $plan->update($section, ['name' => 'B', 'seats' => null], 'first');
    $plan->update($section, ['state' => 'archived'], 'second');
    expect($plan->changes(Entity::Section, 'sec'))
        ->toBeTrue()
        ->and($plan->count(Entity::Section, false))
        ->toBe(1)
        ->and($plan->count(Entity::Section, true))
        ->toBe(0)
        ->and($plan->count(Entity::Person, true))
        ->toBe(1)
        ->and(fn() => $plan->insert(Entity::Person, 'p', [], 'twice'))
        ->toThrow(LogicException::class, 'people p is already in the plan.')
        ->and(fn() => $plan->amend(Entity::Section, 'sec', []))
        ->toThrow(LogicException::class, 'The plan inserts no sections sec.')
        ->and(fn() => $plan->amend(Entity::Section, 'other', []))
        ->toThrow(LogicException::class);
    $built = $plan->build('T', 'S');
    expect($built->changes)->toEqual([
        new Change(Entity::Person, 'p', null, [], ['state' => 'left'], 'new', 7),
        new Change(
            Entity::Section,
            'sec',
            3,
            ['name' => 'A', 'state' => 'open'],
            ['name' => 'B', 'state' => 'archived'],
            'first',
        ),
    ]);
    $plan->update($section, ['name' => 'A', 'state' => 'open'], 'back again');
    expect($plan->changes(Entity::Section, 'sec'))->toBeFalse();
});

it('relies on people, sections and years it does not make', function (): void {
    $change = fn(Entity $e, ?int $version, array $before, array $after): Change => new Change(
        $e,
        'id',
        $version,
        $before,
        $after,
        'x',
    );
    expect(
        Relied::on(
            new Plan('T', 'S', [
                $change(
                    Entity::Enrollment,
                    null,
                    [],
                    ['section_id' => 'sec', 'person_id' => 'zoe', 'join_code_id' => 'c'],
                ),
                new Change(Entity::Enrollment, 'e2', 1, [], ['person_id' => 'ada'], 'x'),
                $change(Entity::Section, 2, ['school_year_id' => 'old'], ['school_year_id' => 'new']),
                new Change(Entity::Person, 'made', null, [], ['merged_into' => null], 'x'),
                new Change(Entity::SignIn, 's', null, [], ['person_id' => 'made'], 'x'),
                new Change(Entity::Invitation, 'i', 1, [], ['section_id' => 'sec', 'invited_by' => ''], 'x'),
            ]),
        ),
    )
        ->toBe([
            'people' => ['ada' => false, 'zoe' => false],
            'school_years' => ['new' => true],
            'sections' => ['sec' => true],
        ])
        ->and(Relied::fault(Entity::Person, null, false))
        ->toBe('is gone')
        ->and(Relied::fault(Entity::Person, 'merged', false))
        ->toBe('has been merged into another account')
        ->and(Relied::fault(Entity::Person, 'left', true))
        ->toBeNull()
        ->and(Relied::fault(Entity::Section, 'archived', true))
        ->toBe('has been archived')
        ->and(Relied::fault(Entity::Section, 'archived', false))
        ->toBeNull()
        ->and(Relied::fault(Entity::Section, 'open', true))
        ->toBeNull()
        ->and(Relied::fault(Entity::SchoolYear, 'closed', true))
        ->toBe('is over')
        ->and(Relied::fault(Entity::SchoolYear, 'closed', false))
        ->toBeNull()
        ->and(Relied::fault(Entity::SchoolYear, 'planned', true))
        ->toBeNull();
});

it('keeps of an image what taking it back has to know', function (): void {
    $secret = Written::of(
        new Change(
            Entity::SignIn,
            's',
            2,
            ['passphrase' => null, 'user_name' => 'a'],
            ['passphrase' => 'x', 'password' => 'y'],
            'x',
        ),
    );
    expect([$secret->issued, $secret->replaced, $secret->back, $secret->merges, $secret->inserts()])->toBe([
        ['password', 'passphrase'],
        ['password'],
        ['user_name' => 'a'],
        false,
        false,
    ]);
    $merged = Written::of(
        new Change(
            Entity::Person,
            'p',
            5,
            ['merged_into' => null, 'phone' => '1'],
            ['state' => 'merged', 'merged_into' => 'q'],
            'x',
        ),
    );
    expect([$merged->merges, $merged->back, $merged->wasVersion])->toBe([true, ['merged_into' => null], 5]);
    $made = Written::of(new Change(Entity::Person, 'p', null, [], ['state' => 'active', 'pictures' => 'x'], 'x'));
    expect([$made->inserts(), $made->issued, $made->replaced, $made->back])->toBe([true, ['pictures'], [], []]);
    $archived = Written::of(new Change(Entity::Section, 's', 1, [], ['state' => 'merged'], 'x'));
    expect($archived->merges)->toBeFalse();
});

it('does again only what the undo has put back', function (): void {
    $image = fn(string $id, ?int $version = 2): Change => new Change(
        Entity::Section,
        $id,
        $version,
        ['name' => 'A'],
        ['name' => 'B'],
        'x',
    );
    $redo = fn(array $now): array => array_map(
        fn(Change $c): string => $c->id,
        RedoPlanner::plan(9, [$image('a'), $image('b')], $now),
    );
    expect($redo(['sections a' => [2, true], 'sections b' => [2, false]]))
        ->toBe(['a', 'b'])
        ->and($redo(['sections a' => [9, false], 'sections b' => [2, true]]))
        ->toBe(['b'])
        ->and($redo(['sections a' => [12, true], 'sections b' => [2, true]]))
        ->toBe(['b'])
        ->and(RedoPlanner::plan(9, [$image('new', null)], [])[0]->version)
        ->toBeNull();
    try {
        $redo(['sections a' => [12, false]]);
        expect(false)->toBeTrue('it was done');
    } catch (StalePlan $e) {
        expect($e->changed)->toBe(['sections a', 'sections b']);
    }
});

it('brings no secret back: one that can be empty is, one that cannot be refuses', function (): void {
    $redo = fn(Entity $e, ?int $version, array $after): array => RedoPlanner::plan(
        9,
        [new Change($e, 'id', $version, [], $after, 'x')],
        $version === null ? [] : ["$e->value id" => [$version, true]],
    )[0]->after;
    expect($redo(Entity::SignIn, null, ['user_name' => 'a', 'password' => '(secret)', 'passphrase' => null]))
        ->toBe(['user_name' => 'a', 'password' => null, 'passphrase' => null])
        ->and($redo(Entity::SignIn, 2, ['user_name' => 'a', 'password' => '(secret)']))
        ->toBe(['user_name' => 'a'])
        ->and(fn() => $redo(Entity::Badge, null, ['token_hash' => '(secret)']))
        ->toThrow(Refusal::class, 'Make them anew instead of doing this again.')
        ->and($redo(Entity::Badge, 2, ['state' => 'lost']))
        ->toBe(['state' => 'lost']);
});

it('has one fingerprint for what undos do, whatever order it was found in', function (): void {
    $undo = fn(array $stays, int $back = 1, bool $torn = false, int $seq = 4): string => Undo::fingerprint([
        new Undo($seq, $stays, $back, [], [], $torn),
    ]);
    $one = ['people' => ['a' => Stay::Changed, 'b' => Stay::InUse], 'sections' => ['s' => Stay::Taken]];
    expect($undo($one))
        ->toBe($undo(['sections' => ['s' => Stay::Taken], 'people' => ['b' => Stay::InUse, 'a' => Stay::Changed]]))
        ->and($undo($one))
        ->toBe($undo([...$one, 'badges' => []]))
        ->and(array_unique([$undo($one), $undo([]), $undo($one, 2), $undo($one, 1, true), $undo($one, 1, false, 5)]))
        ->toHaveCount(5)
        ->and((new Undo(4, $one, 1, [], [], false))->staysCount())
        ->toBe(3)
        ->and((new Undo(4, $one, 1, [], [], false))->keeps(Entity::Person, 'b'))
        ->toBeTrue()
        ->and((new Undo(4, $one, 1, [], [], false))->keeps(Entity::Person, 's'))
        ->toBeFalse();
});

it('says a refusal with its values in it, and what a stale plan met', function (): void {
    $refusal = new Refusal('Use {{least}}, not {{length}}.', 'password', ['least' => 8, 'length' => 3]);
    expect($refusal->getMessage())
        ->toBe('Use 8, not 3.')
        ->and($refusal->field)
        ->toBe('password')
        ->and((new StalePlan(['3 Heron']))->getMessage())
        ->toStartWith('What this plan was made from has changed since. Nothing was written;');
});
