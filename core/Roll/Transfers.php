<?php

declare(strict_types=1);

namespace Vantrel\Core\Roll;

use Vantrel\Core\Accounts\SchoolChange;
use Vantrel\Core\Accounts\TransferRequests;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\TransferKind;
use Vantrel\Core\Records\TransferRequest;
use Vantrel\Core\Values\GradeLevel;

/** Many students go to another school, at the hand of whoever coordinates both: nobody has to be asked. */
final class Transfers
{
    /**
     * @param  list<string>  $ids of students, in the order to show
     * @param  Snapshot  $snapshot of them, as {@see SchoolChange} needs it, with the students of the other school who
     *     have one of their numbers, and the requests about them that wait
     * @param  array{int, int}  $grades lowest and highest that the other school teaches
     * @param  string  $by id of whoever does it
     * @param  string  $today YYYY-MM-DD, at the other school
     * @param  string  $now UTC instant
     */
    public static function plan(
        array $ids,
        Snapshot $snapshot,
        string $toId,
        array $grades,
        string $by,
        string $today,
        string $now,
    ): Plan {
        if ($ids === []) {
            throw new Refusal('Choose at least one student.');
        }
        $school = $snapshot->schools[$toId] ?? '';
        $requests = $snapshot->by(TransferRequest::class, 'person_id');
        $plan = new PlanBuilder();
        $go = $taken = [];
        $ended = $unlike = 0;
        foreach ($ids as $i => $id) {
            $student = $snapshot->find(Person::class, $id) ?? throw new Refusal('One of them is not there any more.');
            $why = self::why($snapshot, $student, $toId, $taken);
            $ends = [];
            $note = '';
            if ($why === '') {
                $go[$id] = $student;
                $taken[(string) $student->number()] = $student;
                $ends = SchoolChange::write($plan, $snapshot, $student, $toId, [], $today);
                $ended += count($ends);
                foreach ($requests[$id] ?? [] as $request) {
                    if ($request->toSchoolId() === $toId && $request->kind() === TransferKind::Transfer) {
                        TransferRequests::accepted($plan, $request, $by, $now);
                    }
                }
                $grade = GradeLevel::read((string) $student->grade());
                if ($grade !== null && ($grade->order < $grades[0] || $grade->order > $grades[1])) {
                    $unlike++;
                    $note = "{$grade->label()} is not taught there";
                }
            }
            $plan->row(self::row($i + 1, $snapshot, $student, $school, $ends, $why, $note));
        }
        $along = SchoolChange::guardians($plan, $snapshot, $go, $toId);
        if ($ended > 0) {
            $plan->warn(
                Words::count($ended, 'enrollment ends', 'enrollments end') . ' today. Rosters of earlier days stay.',
            );
        }
        if ($unlike > 0) {
            $plan->warn(
                Words::count($unlike, 'student is', 'students are') .
                    " in a grade that $school does not teach. Change the grade there.",
            );
        }
        $count = Words::count(count($go), 'student');

        return $plan->build(
            count($go) === 1 ? reset($go)->fullName() . " to $school" : "$count to $school",
            "$count " .
                (count($go) === 1 ? 'goes' : 'go') .
                " to $school" .
                ($along === 0 ? '' : ', and ' . Words::count($along, 'guardian') . ' along with them') .
                '. Accounts, cards and user names go on working. It stands in the ledgers of both schools.',
            [
                new Tally('changed', count($go), count($go) === 1 ? 'student goes' : 'students go'),
                new Tally('along', $along, $along === 1 ? 'guardian goes along' : 'guardians go along'),
            ],
        );
    }

    /**
     * Why somebody cannot go; '' where they can.
     *
     * @param  array<array-key, Person>  $taken by number, those who go before
     */
    private static function why(Snapshot $snapshot, Person $student, string $toId, array $taken): string
    {
        $number = (string) $student->number();
        $bearers =
            $number === ''
                ? []
                : array_filter(
                    [...$snapshot->where(Person::class, 'number', $number), ...array_filter([$taken[$number] ?? null])],
                    fn(Person $p): bool => $p->id !== $student->id &&
                        $p->kind() === PersonKind::Student &&
                        $p->state() !== PersonState::Merged &&
                        ($p->schoolId() === $toId || $p === ($taken[$number] ?? null)),
                );
        $bearer = reset($bearers);

        return match (true) {
            $student->kind() !== PersonKind::Student => 'not a student',
            $student->erasedOn() !== null => 'erased',
            $student->state() === PersonState::Merged => 'merged into another account',
            $student->state() === PersonState::Reserve => 'a reserve place',
            $student->schoolId() === $toId => 'there already',
            $bearer !== false => "number $number is {$bearer->fullName()}’s there: change one of them first",
            default => '',
        };
    }

    /** @param  list<string>  $ends names of sections */
    private static function row(
        int $number,
        Snapshot $snapshot,
        Person $student,
        string $school,
        array $ends,
        string $why,
        string $note,
    ): PlanRow {
        $from = $snapshot->schools[$student->schoolId()] ?? '';

        return new PlanRow(
            $number,
            match ($why) {
                '' => Verdict::Update,
                'there already' => Verdict::Same,
                default => Verdict::Cannot,
            },
            [
                'Student' => Cell::same($student->fullName()),
                'Number' => Cell::same((string) $student->number()),
                'School' => $why === '' ? new Cell($from, $school) : Cell::same($from),
                'Sections' => new Cell(implode(', ', $ends), ''),
            ],
            $why === '' ? $note : $why,
        );
    }
}
