<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Row;

/**
 * A list changes only its own school's people. What it says of a student of another school becomes a request to that school, which
 * sees what the list says beside what it knows itself; the school that asks sees nothing it did not bring.
 */
final class TransferRequests
{
    /**
     * @param  array{given_name: string, family_name: string, birth_date: string, number: string, grade: string, sections: list<string>, section_names: list<string>}  $said by the list
     * @param  string  $now UTC instant
     */
    public static function ask(PlanBuilder $plan, string $id, Row $person, string $toSchoolId, TransferKind $kind, array $said, ?string $askedBy, string $now, string $reason, int $row): void
    {
        $plan->insert(Entity::TransferRequest, $id, [
            'person_id' => $person->id, 'from_school_id' => $person->text('school_id'), 'to_school_id' => $toSchoolId, 'kind' => $kind->value, 'state' => 'waiting',
            'said' => json_encode($said, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE), 'asked_by' => $askedBy, 'made_at' => $now, 'answered_at' => null, 'answered_by' => null,
        ], $reason, $row);
    }

    /**
     * The school the student is at lets them go, or come here too. Stands in the ledgers of both.
     *
     * @param  list<Row>  $enrollments of the student that are open
     * @param  array<string, Row>  $sections by id: those the request names and those the enrollments are in
     * @param  bool  $numberIsFree whether nobody at the other school has the number the list gives
     * @param  string  $today the day at the school that asks
     * @param  string  $now UTC instant
     *
     * @throws Refusal where it has been answered, or the student is not there any more
     */
    public static function accept(Row $request, Row $person, string $toSchool, array $enrollments, array $sections, bool $numberIsFree, Ids $ids, string $answererId, string $today, string $now): Plan
    {
        self::mustWait($request);
        if ($person->text('school_id') !== $request->text('from_school_id') || ! in_array($person->text('state'), ['active', 'left'], true)) {
            throw new Refusal('This student is not at your school any more. Turn the request down.');
        }
        $said = self::said($request);
        $kind = TransferKind::from($request->text('kind'));
        $name = trim($person->text('given_name').' '.$person->text('family_name'));
        $plan = new PlanBuilder;
        if ($kind === TransferKind::Transfer) {
            $fields = ['school_id' => $request->text('to_school_id'), 'state' => 'active'];
            if ($said['number'] !== '' && $numberIsFree) {
                $fields['number'] = $said['number'];
            }
            if ($said['grade'] !== '') {
                $fields['grade'] = $said['grade'];
            }
            $plan->update(Entity::Person, $person, $fields, "transfer to $toSchool");
            foreach ($enrollments as $enrollment) {
                if (($sections[$enrollment->text('section_id')] ?? null)?->text('school_id') === $request->text('from_school_id')) {
                    $plan->update(Entity::Enrollment, $enrollment, ['ends_on' => max($today, $enrollment->text('begins_on'))], "transfer to $toSchool");
                }
            }
        }
        $in = array_map(fn (Row $e): string => $e->text('section_id'), $enrollments);
        $names = [];
        foreach ($said['sections'] as $sectionId) {
            $section = $sections[$sectionId] ?? null;
            if ($section === null || $section->text('state') !== 'open' || $section->text('school_id') !== $request->text('to_school_id') || in_array($sectionId, $in, true)) {
                continue;
            }
            $names[] = $section->text('name');
            $plan->insert(Entity::Enrollment, $ids->for('enrollment', $sectionId, $person->id), [
                'section_id' => $sectionId, 'person_id' => $person->id, 'role' => 'student', 'begins_on' => $today, 'ends_on' => null, 'source' => 'list', 'join_code_id' => null, 'came_at' => null,
            ], $kind->value);
        }
        $plan->update(Entity::TransferRequest, $request, ['state' => 'accepted', 'answered_at' => $now, 'answered_by' => $answererId], 'accepted');

        return $plan->build($kind === TransferKind::Transfer ? "$name to $toSchool" : "$name also at $toSchool", ($kind === TransferKind::Transfer
            ? "$name moves to $toSchool; sections here end today. The account and its cards go on working." : "$name stays here and comes to $toSchool too.")
            .($names === [] ? '' : ' Comes into '.implode(', ', $names).'.'));
    }

    public static function refuse(Row $request, string $name, string $answererId, string $now): Plan
    {
        self::mustWait($request);
        $plan = new PlanBuilder;
        $plan->update(Entity::TransferRequest, $request, ['state' => 'refused', 'answered_at' => $now, 'answered_by' => $answererId], 'turned down');

        return $plan->build("Request for $name turned down", "$name stays where they are. The school that asked is told so.");
    }

    /** The school that asked takes it back. */
    public static function withdraw(Row $request, string $answererId, string $now): Plan
    {
        self::mustWait($request);
        $plan = new PlanBuilder;
        $plan->update(Entity::TransferRequest, $request, ['state' => 'withdrawn', 'answered_at' => $now, 'answered_by' => $answererId], 'taken back');

        $said = self::said($request);

        return $plan->build('Request for '.trim("{$said['given_name']} {$said['family_name']}").' taken back', 'The other school does not have to answer it any more.');
    }

    /** @return array{given_name: string, family_name: string, birth_date: string, number: string, grade: string, sections: list<string>, section_names: list<string>} */
    public static function said(Row $request): array
    {
        $said = json_decode($request->text('said'), true);
        $said = is_array($said) ? $said : [];
        $text = fn (string $key): string => is_string($said[$key] ?? null) ? $said[$key] : '';
        $list = fn (string $key): array => array_values(array_filter(is_array($said[$key] ?? null) ? $said[$key] : [], is_string(...)));

        return ['given_name' => $text('given_name'), 'family_name' => $text('family_name'), 'birth_date' => $text('birth_date'), 'number' => $text('number'), 'grade' => $text('grade'), 'sections' => $list('sections'), 'section_names' => $list('section_names')];
    }

    private static function mustWait(Row $request): void
    {
        if ($request->text('state') !== 'waiting') {
            throw new Refusal(match ($request->text('state')) {
                'accepted' => 'This request has been accepted already.',
                'refused' => 'This request has been turned down already.',
                default => 'The school that asked has taken this request back.',
            });
        }
    }
}
