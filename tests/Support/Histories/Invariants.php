<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Guardianship;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\SchoolYear;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Records\SignIn;

/**
 * What holds at every moment, whoever did what. Said anew here, not by the rules under test, but for what "counts"
 * means.
 */
final class Invariants
{
    /** @return list<string> what does not hold */
    public static function broken(Snapshot $s): array
    {
        return [...self::references($s), ...self::closed($s), ...self::alone($s), ...self::students($s)];
    }

    /** @return list<string> whether somebody came into a section that was archived before */
    public static function cameTooLate(Snapshot $before, Snapshot $after): array
    {
        foreach ($after->all(Enrollment::class) as $enrollment) {
            $was = $before->find(Enrollment::class, $enrollment->id);
            if (
                $was?->sectionId() !== $enrollment->sectionId() &&
                $before->find(Section::class, $enrollment->sectionId())?->state() === SectionState::Archived &&
                $after->find(Section::class, $enrollment->sectionId())?->state() === SectionState::Archived
            ) {
                return ['somebody comes into an archived section'];
            }
        }

        return [];
    }

    /** @return list<string> */
    private static function references(Snapshot $s): array
    {
        $broken = [];
        foreach (Entity::cases() as $entity) {
            foreach ($s->records($entity) as $row) {
                foreach ($entity->references() as $column => $to) {
                    if (
                        $to !== Entity::School &&
                        $row->field($column) !== null &&
                        $s->find($to->record(), $row->field($column)) === null
                    ) {
                        $broken[] = "$entity->value.$column points at nothing";
                    }
                }
            }
        }

        return $broken;
    }

    /** @return list<string> */
    private static function closed(Snapshot $s): array
    {
        $broken = [];
        $state = fn(Entity $entity, string $id): string => $s->find($entity->record(), $id)?->field('state') ?? '';
        $guardians = [];
        foreach ($s->all(Guardianship::class) as $row) {
            $guardians[$row->field('student_id') . $row->field('guardian_id')] = true;
        }
        foreach ($s->all(Person::class) as $person) {
            if (($person->field('state') === 'merged') !== ($person->field('merged_into') !== null)) {
                $broken[] = 'an account is merged into nobody';
            }
            if (
                $person->field('merged_into') !== null &&
                $state(Entity::Person, $person->field('merged_into')) === 'merged'
            ) {
                $broken[] = 'an account is merged into one that is merged itself';
            }
        }
        foreach ($s->all(SignIn::class) as $row) {
            if ($state(Entity::Person, $row->field('person_id')) === 'merged') {
                $broken[] = 'a user name signs in to a merged account';
            }
        }
        foreach ($s->all(Enrollment::class) as $row) {
            if (
                $state(Entity::Person, $row->field('person_id')) === 'merged' &&
                ($row->field('ends_on') === null || $row->field('ends_on') > $row->field('begins_on'))
            ) {
                $broken[] = 'a merged account is enrolled';
            }
        }
        foreach ($s->all(Guardianship::class) as $row) {
            $child = $s->find(Person::class, $row->field('student_id'));
            if (
                $child?->field('state') === 'merged' &&
                !isset($guardians[$child->field('merged_into') . $row->field('guardian_id')])
            ) {
                $broken[] = 'a guardian is left with a merged account';
            }
        }
        foreach ($s->where(Section::class, 'state', 'open') as $row) {
            if ($state(Entity::SchoolYear, $row->field('school_year_id')) === 'closed') {
                $broken[] = 'a section is open in a year that is over';
            }
        }
        foreach ([Entity::JoinCode, Entity::Invitation, Entity::JoinRequest, Entity::RoomPass] as $entity) {
            foreach ($s->records($entity) as $row) {
                if (
                    $state(Entity::Section, $row->field('section_id')) === 'archived' &&
                    LooseEnds::ties($entity, 'section_id', $row->values)
                ) {
                    $broken[] = "$entity->value: one works in an archived section";
                }
            }
        }

        return $broken;
    }

    /** @return list<string> */
    private static function alone(Snapshot $s): array
    {
        $broken = [];
        if (count($s->where(SchoolYear::class, 'state', 'current')) !== 1) {
            $broken[] = count($s->where(SchoolYear::class, 'state', 'current')) . ' years are current';
        }
        $twice = function (array $keys, string $what) use (&$broken): void {
            if (count($keys) !== count(array_unique($keys))) {
                $broken[] = "$what twice";
            }
        };
        $keys = fn(Entity $entity, callable $if, string ...$columns): array => array_map(
            fn(Record $r): string => implode('|', array_map($r->field(...), $columns)),
            array_values(array_filter($s->records($entity), $if)),
        );
        $twice(
            $keys(Entity::JoinCode, fn(Record $r): bool => $r->field('state') === 'open', 'section_id'),
            'open code of a section',
        );
        $twice(
            $keys(
                Entity::Person,
                fn(Record $r): bool => $r->field('state') !== 'merged' && $r->field('number') !== null,
                'school_id',
                'kind',
                'number',
            ),
            'number',
        );
        $twice(
            $keys(Entity::Enrollment, fn(Record $r): bool => $r->field('ends_on') === null, 'section_id', 'person_id'),
            'open enrollment',
        );
        $twice(
            $keys(Entity::Section, fn(Record $r): bool => $r->field('state') === 'open', 'school_year_id', 'name'),
            'name of an open section',
        );
        $twice($keys(Entity::SignIn, fn(): bool => true, 'user_name'), 'user name');

        return $broken;
    }

    /** @return list<string> */
    private static function students(Snapshot $s): array
    {
        $named = $s->by(SignIn::class, 'person_id');
        $without = array_filter(
            $s->all(Person::class),
            fn(Record $p): bool => $p->field('kind') === 'student' &&
                $p->field('state') === 'active' &&
                !isset($named[$p->id]),
        );

        return $without === [] ? [] : ['an active student has no user name'];
    }
}
