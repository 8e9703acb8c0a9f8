<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Records\PersonState;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Records\TransferKind;
use Vantrel\Core\Records\TransferRequest;
use Vantrel\Core\Records\TransferState;

/**
 * A list changes only its own school's people. What it says of a student of another school becomes a request to that
 * school, which sees what the list says beside what it knows itself; the school that asks sees nothing it did not
 * bring.
 *
 * @phpstan-type Listed array{
 *     given_name: string, family_name: string, birth_date: string, number: string, grade: string,
 *     sections: list<string>, section_names: list<string>,
 * }
 */
final class TransferRequests
{
    /**
     * @param  string  $now UTC instant
     * @param  int  $row of the list
     */
    public static function ask(
        PlanBuilder $plan,
        string $id,
        TransferWish $wish,
        string $now,
        string $reason,
        int $row,
    ): void {
        $plan->insert(
            Entity::TransferRequest,
            $id,
            [
                'person_id' => $wish->person->id,
                'from_school_id' => $wish->person->schoolId(),
                'to_school_id' => $wish->toSchoolId,
                'kind' => $wish->kind->value,
                'state' => 'waiting',
                'said' => json_encode($wish->said, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
                'asked_by' => $wish->askedBy,
                'made_at' => $now,
                'answered_at' => null,
                'answered_by' => null,
            ],
            $reason,
            $row,
        );
    }

    /**
     * The school the student is at lets them go, or come here too. Stands in the ledgers of both.
     *
     * @param  Snapshot  $snapshot of the student, as {@see SchoolChange} needs it, with the sections the request names
     *     and whoever has the number the list gives
     *
     * @throws Refusal where it has been answered, or the student is not there any more
     */
    public static function accept(TransferRequest $request, Snapshot $snapshot, string $answererId, Occasion $at): Plan
    {
        self::mustWait($request);
        $person = $snapshot->find(Person::class, $request->personId());
        if (
            $person?->schoolId() !== $request->fromSchoolId() ||
            !in_array($person->state(), [PersonState::Active, PersonState::Left], true)
        ) {
            throw new Refusal('This student is not at your school any more. Turn the request down.');
        }
        $toSchool = $snapshot->schools[$request->toSchoolId()] ?? '';
        $said = self::said($request);
        $kind = $request->kind();
        $name = $person->fullName();
        $plan = new PlanBuilder();
        $along = 0;
        if ($kind === TransferKind::Transfer) {
            $fields = [];
            if ($said['number'] !== '' && self::numberIsFree($snapshot, $request->toSchoolId(), $said['number'])) {
                $fields['number'] = $said['number'];
            }
            if ($said['grade'] !== '') {
                $fields['grade'] = $said['grade'];
            }
            SchoolChange::write($plan, $snapshot, $person, $request->toSchoolId(), $fields, $at->today);
            $along = SchoolChange::guardians($plan, $snapshot, [$person->id => $person], $request->toSchoolId());
        }
        $in = array_map(
            fn(Enrollment $e): string => $e->sectionId(),
            $snapshot->where(Enrollment::class, 'person_id', $person->id),
        );
        $names = [];
        foreach ($said['sections'] as $sectionId) {
            $section = $snapshot->find(Section::class, $sectionId);
            if (
                $section === null ||
                $section->state() !== SectionState::Open ||
                $section->schoolId() !== $request->toSchoolId() ||
                in_array($sectionId, $in, true)
            ) {
                continue;
            }
            $names[] = $section->name();
            $plan->insert(
                Entity::Enrollment,
                $at->ids->for('enrollment', $sectionId, $person->id),
                [
                    'section_id' => $sectionId,
                    'person_id' => $person->id,
                    'role' => 'student',
                    'begins_on' => $at->today,
                    'ends_on' => null,
                    'source' => 'list',
                    'join_code_id' => null,
                    'came_at' => null,
                ],
                $kind->value,
            );
        }
        self::accepted($plan, $request, $answererId, $at->now);

        return $plan->build(
            $kind === TransferKind::Transfer ? "$name to $toSchool" : "$name also at $toSchool",
            ($kind === TransferKind::Transfer
                ? "$name moves to $toSchool; sections here end today. The account and its cards go on working."
                : "$name stays here and comes to $toSchool too.") .
                ($names === [] ? '' : ' Comes into ' . implode(', ', $names) . '.') .
                ($along === 0 ? '' : ' ' . Words::count($along, 'guardian goes', 'guardians go') . ' along.'),
        );
    }

    /** Notes that what was asked for is done. */
    public static function accepted(PlanBuilder $plan, TransferRequest $request, string $by, string $now): void
    {
        $plan->update($request, ['state' => 'accepted', 'answered_at' => $now, 'answered_by' => $by], 'accepted');
    }

    private static function numberIsFree(Snapshot $snapshot, string $schoolId, string $number): bool
    {
        return array_filter(
            $snapshot->where(Person::class, 'number', $number),
            fn(Person $p): bool => $p->schoolId() === $schoolId &&
                $p->kind() === PersonKind::Student &&
                $p->state() !== PersonState::Merged,
        ) === [];
    }

    public static function refuse(TransferRequest $request, string $name, string $answererId, string $now): Plan
    {
        self::mustWait($request);
        $plan = new PlanBuilder();
        $plan->update(
            $request,
            ['state' => 'refused', 'answered_at' => $now, 'answered_by' => $answererId],
            'turned down',
        );

        return $plan->build(
            "Request for $name turned down",
            "$name stays where they are. The school that asked is told so.",
        );
    }

    /** The school that asked takes it back. */
    public static function withdraw(TransferRequest $request, string $answererId, string $now): Plan
    {
        self::mustWait($request);
        $plan = new PlanBuilder();
        $plan->update(
            $request,
            ['state' => 'withdrawn', 'answered_at' => $now, 'answered_by' => $answererId],
            'taken back',
        );

        $said = self::said($request);

        return $plan->build(
            'Request for ' . trim("{$said['given_name']} {$said['family_name']}") . ' taken back',
            'The other school does not have to answer it any more.',
        );
    }

    /**
     * @return Listed
     */
    public static function said(TransferRequest $request): array
    {
        $said = json_decode($request->said(), true);
        $said = is_array($said) ? $said : [];
        $text = fn(string $key): string => is_string($said[$key] ?? null) ? $said[$key] : '';
        $list = fn(string $key): array => array_values(
            array_filter(is_array($said[$key] ?? null) ? $said[$key] : [], is_string(...)),
        );

        return [
            'given_name' => $text('given_name'),
            'family_name' => $text('family_name'),
            'birth_date' => $text('birth_date'),
            'number' => $text('number'),
            'grade' => $text('grade'),
            'sections' => $list('sections'),
            'section_names' => $list('section_names'),
        ];
    }

    private static function mustWait(TransferRequest $request): void
    {
        if ($request->state() !== TransferState::Waiting) {
            throw new Refusal(
                match ($request->state()) {
                    TransferState::Accepted => 'This request has been accepted already.',
                    TransferState::Refused => 'This request has been turned down already.',
                    default => 'The school that asked has taken this request back.',
                },
            );
        }
    }
}
