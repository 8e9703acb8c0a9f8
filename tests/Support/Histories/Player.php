<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\LookAlikes\MergePlanner;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SignIn;

/** Does what the steps of a history say: looks at plans, applies them at once or later, undoes and does again. */
final class Player
{
    use Plans;

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
                $rows['people'] ?? array_map(fn(Record $p): string => $p->id, $this->pair($snapshot, $step)),
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
