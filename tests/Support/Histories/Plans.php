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
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\PrintRoom\CardIssue;
use Vantrel\Core\PrintRoom\CardSecrets;
use Vantrel\Core\PrintRoom\CardWish;
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
use Vantrel\Core\Sections\Move;
use Vantrel\Core\Sections\MoveKind;
use Vantrel\Core\Sections\Moves;
use Vantrel\Core\Sections\Sections;
use Vantrel\Core\YearTurn\YearTurnPlanner;
use Vantrel\Core\YearTurn\YearTurnWish;

/** The plans that players make: what a list, a turn, a move says is drawn from the step. */
trait Plans
{
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
            new Occasion($ids, Histories::TODAY, Histories::NOW),
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
            new Move(
                $kind,
                [$student],
                $from,
                $kind === MoveKind::Remove ? null : $this->pick(array_values($sections), $step->b),
                Histories::TODAY,
            ),
            [$student->id => $own],
            $sections,
            0,
            $ids,
        );
    }

    private function cards(Snapshot $snapshot, Step $step, Ids $ids): Plan
    {
        $signIn = $this->pick(array_values($snapshot->all(SignIn::class)), $step->a);
        $stream = new KeyedStream(hash('sha256', "$this->salt $this->n cards", true), 'cards');

        return CardIssue::for(
            new CardWish([$signIn], $step->b % 2 === 0, 'one'),
            $snapshot->where(Badge::class, 'sign_in_id', $signIn->id),
            [],
            new CardSecrets(new PassphraseSheet(self::words(), $stream), $stream, fn(string $p): string => "sealed $p"),
            $ids,
            Histories::NOW,
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
}
