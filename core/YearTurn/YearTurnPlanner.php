<?php

declare(strict_types=1);

namespace Vantrel\Core\YearTurn;

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\NewEnrollment;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\EnrollmentRole;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Invitation;
use Vantrel\Core\Records\JoinCode;
use Vantrel\Core\Records\JoinRequest;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\RoomPass;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Records\YearState;
use Vantrel\Core\Sections\Sections;
use Vantrel\Core\Values\GradeLevel;

/**
 * Turns a school's year: sections archived with dead codes and full rosters, students up a grade, the top grade out,
 * sections carried forward with their teachers under new codes, the next year current. One plan, undone as one.
 */
final class YearTurnPlanner
{
    private readonly PlanBuilder $plan;

    /** @var array<string, list<JoinCode>> by section */
    private readonly array $codes;

    /** @var array<string, list<Invitation>> by section */
    private readonly array $invitations;

    /** @var array<string, list<Enrollment>> by section */
    private readonly array $enrollments;

    /** @var array<string, list<JoinRequest>> by section */
    private readonly array $requests;

    /** @var array<string, list<RoomPass>> by section */
    private readonly array $passes;

    private int $number = 0;

    private int $archived = 0;

    private int $promoted = 0;

    private int $held = 0;

    private int $leaving = 0;

    private int $carried = 0;

    private function __construct(
        private readonly Snapshot $snapshot,
        private readonly YearTurnWish $wish,
        private readonly CodeBook $book,
        private readonly Ids $ids,
    ) {
        $this->plan = new PlanBuilder();
        $this->codes = $snapshot->by(JoinCode::class, 'section_id');
        $this->invitations = $snapshot->by(Invitation::class, 'section_id');
        $this->enrollments = $snapshot->by(Enrollment::class, 'section_id');
        $this->requests = $snapshot->by(JoinRequest::class, 'section_id');
        $this->passes = $snapshot->by(RoomPass::class, 'section_id');
    }

    public static function plan(Snapshot $snapshot, YearTurnWish $wish, CodeBook $book, Ids $ids): Plan
    {
        return (new self($snapshot, $wish, $book, $ids))->make();
    }

    /**
     * Where the students of a grade go.
     *
     * @param  int  $top order of the highest grade the school teaches
     * @return GradeLevel|null null for those who leave with it
     */
    public static function after(GradeLevel $grade, int $top): ?GradeLevel
    {
        return $grade->order >= $top ? null : $grade->next();
    }

    private function make(): Plan
    {
        $from = $this->snapshot->find(SchoolYear::class, $this->wish->fromYearId);
        if ($from === null || $from->state() !== YearState::Current) {
            $this->plan->block('This year is not the current one: it has been turned already.');

            return $this->plan->build('Year turn', 'There is nothing to turn.');
        }
        if ($this->wish->nextBegins < $from->beginsOn()) {
            $this->plan->block(
                "The next year would begin on {$this->wish->nextBegins}, before {$from->name()} did. Correct " .
                    'its dates.',
            );
        }
        if ($this->wish->importsBeingApplied > 0) {
            $this->plan->block('A list is being applied at this moment. Wait until it is done.');
        }
        $nextId = $this->years($from);
        foreach ($this->sections() as $section) {
            $this->section($section, $nextId);
        }
        foreach ($this->students() as $student) {
            $this->student($student);
        }
        $sentence =
            'Archives ' .
            Words::count($this->archived, 'section') .
            ', moves ' .
            Words::count($this->promoted, 'student') .
            ' up a grade' .
            ($this->held > 0 ? ', holds ' . number_format($this->held) . ' back' : '') .
            ($this->leaving > 0 ? ', lets ' . number_format($this->leaving) . ' leave' : '') .
            ($this->carried > 0
                ? ' and carries ' .
                    Words::count($this->carried, 'section') .
                    " into {$this->wish->nextName} under new codes"
                : '') .
            '. Rosters, accounts and cards stay.';

        return $this->plan->build("{$from->name()} to {$this->wish->nextName}", $sentence, [
            new Tally('archived', $this->archived, 'sections archived'),
            new Tally('promoted', $this->promoted, 'students up a grade'),
            new Tally('held', $this->held, 'held back'),
            new Tally('leaving', $this->leaving, 'leaving'),
            new Tally('carried', $this->carried, 'sections carried forward'),
        ]);
    }

    private function years(SchoolYear $from): string
    {
        $this->plan->update($from, ['state' => 'closed'], 'year turned');
        foreach ($this->snapshot->where(SchoolYear::class, 'school_id', $this->wish->schoolId) as $year) {
            if ($year->name() === $this->wish->nextName) {
                $this->plan->update(
                    $year,
                    ['state' => 'current', 'begins_on' => $this->wish->nextBegins, 'ends_on' => $this->wish->nextEnds],
                    'year turned',
                );

                return $year->id;
            }
        }
        $id = $this->ids->for('year', $this->wish->nextName);
        $this->plan->insert(
            Entity::SchoolYear,
            $id,
            [
                'school_id' => $this->wish->schoolId,
                'name' => $this->wish->nextName,
                'begins_on' => $this->wish->nextBegins,
                'ends_on' => $this->wish->nextEnds,
                'state' => 'current',
            ],
            'year turned',
        );

        return $id;
    }

    private function section(Section $section, string $nextId): void
    {
        $codes = $this->codes[$section->id] ?? [];
        $invitations = $this->invitations[$section->id] ?? [];
        Sections::close(
            $this->plan,
            $section,
            $codes,
            $invitations,
            $this->requests[$section->id] ?? [],
            $this->passes[$section->id] ?? [],
            $this->wish->today,
            $this->wish->now,
        );
        $this->archived++;
        $teachers = array_values(
            array_filter(
                $this->enrollments[$section->id] ?? [],
                fn(Enrollment $e): bool => $e->role() !== EnrollmentRole::Student && $e->endsOn() === null,
            ),
        );
        if (!array_filter($teachers, fn(Enrollment $e): bool => $e->role() === EnrollmentRole::Lead)) {
            $this->plan->warn("{$section->name()} has no lead teacher.");
        }
        $goesOn = match (true) {
            !$this->wish->carrySections => '',
            $this->isThere($section, $nextId) => "is in {$this->wish->nextName} already",
            default => $this->carry($section, $teachers, $nextId),
        };
        $this->plan->row(
            new PlanRow(
                ++$this->number,
                Verdict::Archived,
                [
                    'Name' => Cell::same($section->name()),
                    'Grade' => Cell::same(self::short((string) $section->grade())),
                    'Section' => new Cell('open', 'archived'),
                ],
                $goesOn,
            ),
        );
    }

    private function isThere(Section $section, string $nextId): bool
    {
        foreach ($this->snapshot->where(Section::class, 'school_year_id', $nextId) as $there) {
            if (NameKey::of($there->name()) === NameKey::of($section->name())) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  list<Enrollment>  $teachers
     * @return string what was done, for the row of the section
     */
    private function carry(Section $section, array $teachers, string $nextId): string
    {
        $id = $this->ids->for('section', $section->id);
        $this->plan->insert(
            Entity::Section,
            $id,
            [
                'school_id' => $section->schoolId(),
                'school_year_id' => $nextId,
                'name' => $section->name(),
                'kind' => $section->kind()->value,
                'grade' => $section->grade(),
                'period' => $section->period(),
                'seats' => $section->seats(),
                'state' => 'open',
                'carried_from' => $section->id,
            ],
            'carried forward',
        );
        foreach ($teachers as $teacher) {
            if ($teacher->role()->standsIn()) {
                continue;
            }
            Enrolling::insert(
                $this->plan,
                $this->ids,
                new NewEnrollment($id, $teacher->personId(), $teacher->role()->value, 'rollover', $this->wish->today),
            );
        }
        JoinCodes::insert($this->plan, $id, $this->book, $this->ids, $this->wish->now);
        $this->carried++;

        return 'carried forward under a new code';
    }

    private function student(Person $student): void
    {
        $grade = GradeLevel::read((string) $student->grade());
        $name = $student->fullName();
        $short = self::short((string) $student->grade());
        if ($grade === null) {
            $this->plan->row(
                new PlanRow(
                    ++$this->number,
                    Verdict::Same,
                    ['Name' => Cell::same($name), 'Grade' => Cell::same('none'), 'Section' => Cell::same('')],
                    'has no grade',
                ),
            );

            return;
        }
        $next = self::after($grade, $this->wish->grades === [] ? GradeLevel::BEYOND : max($this->wish->grades));
        if (in_array($student->id, $this->wish->heldBack, true)) {
            $this->held++;
            [$verdict, $cell, $why] = [Verdict::Same, Cell::same($short), 'held back'];
        } elseif ($next === null) {
            $this->plan->update($student, ['state' => 'left'], 'finished the top grade');
            $this->leaving++;
            [$verdict, $cell, $why] = [Verdict::Leaving, new Cell($short, 'leaves'), 'finished the top grade'];
        } else {
            $this->plan->update($student, ['grade' => $next->code()], 'up a grade');
            $this->promoted++;
            [$verdict, $cell, $why] = [Verdict::Update, new Cell($short, $next->short()), ''];
        }
        $this->plan->row(
            new PlanRow(
                ++$this->number,
                $verdict,
                ['Name' => Cell::same($name), 'Grade' => $cell, 'Section' => Cell::same('')],
                $why,
                [],
                $student->id,
                $student->number(),
            ),
        );
    }

    private static function short(string $code): string
    {
        return GradeLevel::read($code)?->short() ?? '';
    }

    /** @return list<Section> */
    private function sections(): array
    {
        $sections = array_values(
            array_filter(
                $this->snapshot->all(Section::class),
                fn(Section $s): bool => $s->schoolId() === $this->wish->schoolId &&
                    $s->state() === SectionState::Open &&
                    $s->schoolYearId() === $this->wish->fromYearId,
            ),
        );
        usort($sections, fn(Section $a, Section $b): int => strnatcasecmp($a->name(), $b->name()) ?: $a->id <=> $b->id);

        return $sections;
    }

    /** @return list<Person> */
    private function students(): array
    {
        $students = array_values(
            array_filter(
                $this->snapshot->all(Person::class),
                fn(Person $p): bool => $p->schoolId() === $this->wish->schoolId &&
                    $p->kind() === PersonKind::Student &&
                    $p->state() === PersonState::Active,
            ),
        );
        $order = fn(Person $p): array => [
            GradeLevel::read((string) $p->grade())->order ?? 99,
            $p->familyName(),
            $p->givenName(),
            $p->id,
        ];
        usort($students, fn(Person $a, Person $b): int => $order($a) <=> $order($b));

        return $students;
    }
}
