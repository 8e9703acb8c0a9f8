<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Closure;
use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Accounts\UserNames;
use Vantrel\Core\Accounts\WordList;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Intake\GuardianLine;
use Vantrel\Core\Intake\IntakePlanner;
use Vantrel\Core\Intake\IntakeWish;
use Vantrel\Core\Intake\ListContents;
use Vantrel\Core\Intake\StudentLine;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\PrintRoom\CardIssue;
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\RoomPass;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SignIn;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Sections\Moves;
use Vantrel\Core\Sections\Sections;
use Vantrel\Core\YearTurn\YearTurnPlanner;
use Vantrel\Core\YearTurn\YearTurnWish;

/** Does what the steps of a history say: looks at plans, applies them at once or later, undoes and does again. */
final class Player
{
    public const POOL = [
        ['Noor', 'Haddad'],
        ['Noor', 'Haddat'],
        ['Kai', 'Wu'],
        ['Kai', 'Wuh'],
        ['Bo', 'Ek'],
        ['Uma', 'Rao'],
        ['Mei', 'Chen'],
        ['Ada', 'Pham'],
        ['Tove', 'Lind'],
        ['Ravi', 'Nair'],
        ['Ines', 'Sol'],
        ['Juno', 'Ash'],
    ];

    /** @var array<int, array{Plan, Action}> by actor, looked at and not applied yet */
    private array $looked = [];

    private int $n = 0;

    /** @param  string  $salt makes what this player draws its own */
    public function __construct(private readonly House $house, private readonly string $salt) {}

    /** @return string what came of it: done, empty, stale, refused, or kept where an undo let something stay */
    public function play(Step $step): string
    {
        $this->n++;
        try {
            return match ($step->kind) {
                'list', 'move', 'edit', 'number', 'open-code', 'close-code', 'join', 'cards' => $this->apply(
                    ...$this->look($step->kind, $step),
                ),
                'merge', 'archive', 'turn' => $this->hold($step),
                'look-list', 'look-merge', 'look-archive', 'look-turn' => $this->later($step),
                'apply' => $this->applyLooked($step->actor),
                'undo' => $this->undo($step),
                'redo' => $this->redo($step),
                default => $this->signIn($step),
            };
        } catch (StalePlan) {
            return 'stale';
        } catch (Refusal) {
            return 'refused';
        }
    }

    private function apply(Plan $plan, Action $action): string
    {
        if ($plan->isEmpty()) {
            return 'empty';
        }
        $this->house->apply($plan, $action);

        return 'done';
    }

    /** As the doors of the application do it: planned with what it is about locked. */
    private function hold(Step $step): string
    {
        $snapshot = $this->house->snapshot();
        $rows = match ($step->kind) {
            'merge' => ['people' => array_map(fn(Record $p): string => $p->id, $this->pair($snapshot, $step))],
            'archive' => ['sections' => [$this->pick(array_values($snapshot->all(Section::class)), $step->a)->id]],
            default => ['school_years' => array_map(strval(...), array_keys($snapshot->all(SchoolYear::class)))],
        };
        $this->house->holding(
            $rows,
            fn(): Plan => $this->look($step->kind, $step, $rows)[0],
            self::action($step->kind),
        );

        return 'done';
    }

    private function later(Step $step): string
    {
        $this->looked[$step->actor] = $this->look(substr($step->kind, 5), $step);

        return 'looked';
    }

    private function applyLooked(int $actor): string
    {
        $looked = $this->looked[$actor] ?? null;
        unset($this->looked[$actor]);

        return $looked === null ? 'empty' : $this->apply(...$looked);
    }

    private function undo(Step $step): string
    {
        $open = array_keys(array_filter($this->house->entries(), fn(bool $undone): bool => !$undone));
        if ($open === []) {
            return 'empty';
        }
        // Mostly the newest.
        $seq = $open[max(0, count($open) - 1 - intdiv($step->a % 12, 2))];

        return $this->house->undo($seq, $step->b % 3 === 0) === [] ? 'done' : 'kept';
    }

    private function redo(Step $step): string
    {
        $undone = array_keys(array_filter($this->house->entries()));
        if ($undone === []) {
            return 'empty';
        }
        $this->house->redo($undone[max(0, count($undone) - 1 - ($step->a % 3))]);

        return 'done';
    }

    private function signIn(Step $step): string
    {
        $this->house->signIn($this->pick(array_values($this->house->snapshot()->all(SignIn::class)), $step->a)->id);

        return 'done';
    }

    private static function action(string $kind): Action
    {
        return match ($kind) {
            'list' => Action::Intake,
            'merge' => Action::Merge,
            'archive' => Action::Archive,
            'turn' => Action::YearTurn,
            'open-code', 'close-code' => Action::Code,
            'join' => Action::Join,
            'cards' => Action::Cards,
            default => Action::Place,
        };
    }

    /**
     * @param  array<string, list<string>>  $rows that are locked, where any are
     * @return array{Plan, Action}
     */
    private function look(string $kind, Step $step, array $rows = []): array
    {
        $snapshot = $this->house->snapshot();
        $ids = new Ids('01K6F00000' . substr(strtoupper(hash('sha256', "$this->salt $this->n")), 0, 16));
        $book = new CodeBook(new KeyedStream(hash('sha256', "$this->salt $this->n code", true), 'code'), [], 4, 100);
        $plan = match ($kind) {
            'list' => $this->list($snapshot, $step, $ids),
            'merge' => MergePlanner::plan(
                $snapshot,
                $rows['people'][0] ?? $this->pair($snapshot, $step)[0]->id,
                $rows['people'][1] ?? $this->pair($snapshot, $step)[1]->id,
            )->plan,
            'archive' => $this->archive(
                $snapshot,
                $snapshot->find(Section::class, $rows['sections'][0] ?? null) ??
                    $this->pick(array_values($snapshot->all(Section::class)), $step->a),
            ),
            'turn' => $this->turn($snapshot, $step, $book, $ids),
            'open-code' => $this->onSection(
                $snapshot,
                $step,
                fn(Record $s): Plan => JoinCodes::open(
                    $s,
                    $snapshot->where(JoinCode::class, 'section_id', $s->id),
                    $book,
                    $ids,
                    Histories::NOW,
                ),
            ),
            'close-code' => $this->onSection(
                $snapshot,
                $step,
                fn(Record $s): Plan => JoinCodes::close(
                    $s,
                    $snapshot->where(JoinCode::class, 'section_id', $s->id),
                    Histories::NOW,
                ),
            ),
            'join' => $this->join($snapshot, $step, $ids),
            'move' => $this->move($snapshot, $step, $ids),
            'cards' => $this->cards($snapshot, $step, $ids),
            'number' => $this->change($this->student($snapshot, $step->a), [
                'number' => $step->b % 3 === 0 ? null : sprintf('02%04d', $step->b % 5),
            ]),
            default => $this->change($this->student($snapshot, $step->a), ['grade' => '0' . $step->b % 6]),
        };

        return [$plan, self::action($kind)];
    }

    private function list(Snapshot $snapshot, Step $step, Ids $ids): Plan
    {
        $lines = [];
        for ($i = 0; $i < 1 + ($step->b % 3); $i++) {
            $who = ($step->a + 5 * $i) % count(self::POOL);
            [$given, $family] = self::POOL[$who];
            $rooms = ['3 Heron', '3 Tern', '4 Curlew', '5 Wren'];
            $guardians =
                $step->c % 3 === 0
                    ? [new GuardianLine(new PersonName('Ann', $family), "ann$who@shoremail.example", '')]
                    : [];
            $lines[] = new StudentLine(
                $i + 2,
                new PersonName($given, $family),
                ($step->a + $i) % 2 === 0 ? sprintf('02%04d', $who) : '',
                '2017-03-0' . (1 + ($who % 5)),
                '0' . (3 + ($step->c % 3)),
                $rooms[($step->b + $i) % 4],
                $step->c % 4 === 0 ? ['Art 4'] : [],
                '',
                $guardians,
                [],
            );
        }
        $school = (string) array_key_first($snapshot->schools);
        $year = $snapshot->where(SchoolYear::class, 'state', 'current')[0]->id ?? throw new Refusal('no year');
        $taken = array_fill_keys(
            array_map(fn(Record $r): string => $r->field('user_name'), array_values($snapshot->all(SignIn::class))),
            true,
        );
        // What a list meets: nobody who was merged away, and sections that are open.
        $seen = $this->seenByLists($snapshot);
        $make = fn(array $answers): Plan => IntakePlanner::plan(
            new ListContents($lines),
            $seen,
            new IntakeWish('List', $school, $year, Histories::TODAY, $answers),
            $ids,
            new UserNames($taken, []),
        );
        $plan = $make([]);
        $answers = [];
        foreach ($plan->openQuestions() as $n => $question) {
            $answers[$question->id] = $question->choices[($step->c + $n) % count($question->choices)]->key;
        }
        $plan = $answers === [] ? $plan : $make($answers);
        if ($plan->openQuestions() !== []) {
            throw new Refusal('questions are open');
        }

        return $plan;
    }

    private function seenByLists(Snapshot $snapshot): Snapshot
    {
        $open = array_filter($snapshot->all(Section::class), fn(Record $s): bool => $s->field('state') === 'open');

        return new Snapshot(
            [
                Entity::Person->value => array_filter(
                    $snapshot->all(Person::class),
                    fn(Record $p): bool => $p->field('state') !== 'merged',
                ),
                Entity::Section->value => $snapshot->all(Section::class),
                Entity::Enrollment->value => array_filter(
                    $snapshot->all(Enrollment::class),
                    fn(Record $e): bool => $e->field('ends_on') === null && isset($open[$e->field('section_id')]),
                ),
                Entity::Guardianship->value => $snapshot->all(Guardianship::class),
            ],
            $snapshot->schools,
        );
    }

    private function archive(Snapshot $snapshot, Record $section): Plan
    {
        $of = fn(string $kind): array => $snapshot->where($kind, 'section_id', $section->id);

        return Sections::archive(
            $section,
            $of(JoinCode::class),
            $of(Invitation::class),
            $of(JoinRequest::class),
            $of(RoomPass::class),
            Histories::TODAY,
            Histories::NOW,
        );
    }

    private function turn(Snapshot $snapshot, Step $step, CodeBook $book, Ids $ids): Plan
    {
        $current = $snapshot->where(SchoolYear::class, 'state', 'current')[0] ?? throw new Refusal('no year');
        $begins = 1 + (int) substr($current->field('name'), 0, 4);
        $wish = new YearTurnWish(
            $current->field('school_id'),
            $current->id,
            $begins . '-' . (($begins % 100) + 1),
            "$begins-08-23",
            $begins + 1 . '-06-10',
            [0, 1, 2, 3, 4, 5],
            [],
            $step->c % 2 === 0,
            Histories::TODAY,
            Histories::NOW,
        );

        return YearTurnPlanner::plan($snapshot, $wish, $book, $ids);
    }

    private function join(Snapshot $snapshot, Step $step, Ids $ids): Plan
    {
        $codes = $snapshot->where(JoinCode::class, 'state', 'open');
        $code = $this->pick($codes, $step->a);
        $student = $this->student($snapshot, $step->b);
        /** @var Record $section */
        $section = $snapshot->find(Section::class, $code->field('section_id'));

        return JoinCodes::enter(
            $section,
            $code,
            $student,
            $snapshot->where(Enrollment::class, 'person_id', $student->id),
            0,
            $ids,
            Histories::TODAY,
            Histories::NOW,
        );
    }

    private function move(Snapshot $snapshot, Step $step, Ids $ids): Plan
    {
        $student = $this->student($snapshot, $step->a);
        $sections = $snapshot->all(Section::class);
        $own = array_values(
            array_filter(
                $snapshot->where(Enrollment::class, 'person_id', $student->id),
                fn(Record $e): bool => $e->field('ends_on') === null,
            ),
        );
        $kind = [MoveKind::Move, MoveKind::Also, MoveKind::Remove][$step->c % 3];
        $from = $kind === MoveKind::Also ? null : $sections[$this->pick($own, $step->b)->field('section_id')];

        return Moves::plan(
            $kind,
            [$student],
            $from,
            $kind === MoveKind::Remove ? null : $this->pick(array_values($sections), $step->b),
            [$student->id => $own],
            $sections,
            0,
            Histories::TODAY,
            $ids,
        );
    }

    private function cards(Snapshot $snapshot, Step $step, Ids $ids): Plan
    {
        $signIn = $this->pick(array_values($snapshot->all(SignIn::class)), $step->a);
        $stream = new KeyedStream(hash('sha256', "$this->salt $this->n cards", true), 'cards');

        return CardIssue::for(
            [$signIn],
            $snapshot->where(Badge::class, 'sign_in_id', $signIn->id),
            [],
            new PassphraseSheet(self::words(), $stream),
            $stream,
            fn(string $p): string => "sealed $p",
            $ids,
            Histories::NOW,
            $step->b % 2 === 0,
            'one',
        )->plan;
    }

    private static function words(): WordList
    {
        static $words = null;

        return $words ??= new WordList(
            array_map(fn(int $n): string => 'word' . chr(97 + intdiv($n, 26)) . chr(97 + ($n % 26)), range(0, 299)),
        );
    }

    /** @param  array<string, string|int|null>  $values */
    private function change(Record $row, array $values): Plan
    {
        $plan = new PlanBuilder();
        $plan->update($row, $values, 'by hand');

        return $plan->build('By hand', 'Changes something.');
    }

    /** @param  Closure(Record): Plan  $make */
    private function onSection(Snapshot $snapshot, Step $step, Closure $make): Plan
    {
        return $make($this->pick(array_values($snapshot->all(Section::class)), $step->a));
    }

    private function student(Snapshot $snapshot, int $n): Record
    {
        return $this->pick(
            array_values(
                array_filter(
                    $snapshot->all(Person::class),
                    fn(Record $p): bool => $p->field('kind') === 'student' && $p->field('state') === 'active',
                ),
            ),
            $n,
        );
    }

    /** @return array{Record, Record} */
    private function pair(Snapshot $snapshot, Step $step): array
    {
        $students = array_values(
            array_filter(
                $snapshot->all(Person::class),
                fn(Record $p): bool => $p->field('kind') === 'student' && $p->field('state') !== 'merged',
            ),
        );

        return [$this->pick($students, $step->a), $this->pick($students, $step->a + 1 + ($step->b % 3))];
    }

    /** @param  list<Record>  $rows */
    private function pick(array $rows, int $n): Record
    {
        usort($rows, fn(Record $a, Record $b): int => $a->id <=> $b->id);

        return $rows === [] ? throw new Refusal('nobody to choose') : $rows[$n % count($rows)];
    }
}
