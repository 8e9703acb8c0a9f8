<?php

declare(strict_types=1);

namespace Tests\Support\Histories;

use Vantrel\Core\Plan\Entity;
use Vantrel\Core\Plan\LooseEnds;
use Vantrel\Core\Plan\Row;
use Vantrel\Core\Plan\Snapshot;

/** What holds at every moment, whoever did what. Said anew here, not by the rules under test, but for what "counts" means. */
final class Invariants
{
    /** @return list<string> what does not hold */
    public static function broken(Snapshot $s): array
    {
        return [...self::references($s), ...self::closed($s), ...self::alone($s), ...self::students($s)];
    }

    /** @return list<string> */
    private static function references(Snapshot $s): array
    {
        $broken = [];
        foreach (Entity::cases() as $entity) {
            foreach ($s->all($entity) as $row) {
                foreach ($entity->references() as $column => $to) {
                    if ($to !== Entity::School && $row->maybe($column) !== null && $s->find($to, $row->text($column)) === null) {
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
        $state = fn (Entity $entity, string $id): string => $s->find($entity, $id)?->text('state') ?? '';
        $guardians = [];
        foreach ($s->all(Entity::Guardianship) as $row) {
            $guardians[$row->text('student_id').$row->text('guardian_id')] = true;
        }
        foreach ($s->all(Entity::Person) as $person) {
            if (($person->text('state') === 'merged') !== ($person->maybe('merged_into') !== null)) {
                $broken[] = 'an account is merged into nobody';
            }
            if ($person->maybe('merged_into') !== null && $state(Entity::Person, $person->text('merged_into')) === 'merged') {
                $broken[] = 'an account is merged into one that is merged itself';
            }
        }
        foreach ($s->all(Entity::SignIn) as $row) {
            if ($state(Entity::Person, $row->text('person_id')) === 'merged') {
                $broken[] = 'a user name signs in to a merged account';
            }
        }
        foreach ($s->all(Entity::Enrollment) as $row) {
            if ($state(Entity::Person, $row->text('person_id')) === 'merged' && ($row->maybe('ends_on') === null || $row->text('ends_on') > $row->text('begins_on'))) {
                $broken[] = 'a merged account is enrolled';
            }
        }
        foreach ($s->all(Entity::Guardianship) as $row) {
            $child = $s->find(Entity::Person, $row->text('student_id'));
            if ($child?->text('state') === 'merged' && ! isset($guardians[$child->text('merged_into').$row->text('guardian_id')])) {
                $broken[] = 'a guardian is left with a merged account';
            }
        }
        foreach ($s->where(Entity::Section, 'state', 'open') as $row) {
            if ($state(Entity::SchoolYear, $row->text('school_year_id')) === 'closed') {
                $broken[] = 'a section is open in a year that is over';
            }
        }
        foreach ([Entity::JoinCode, Entity::Invitation, Entity::JoinRequest, Entity::RoomPass] as $entity) {
            foreach ($s->all($entity) as $row) {
                if ($state(Entity::Section, $row->text('section_id')) === 'archived' && LooseEnds::ties($entity, 'section_id', $row->values)) {
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
        if (count($s->where(Entity::SchoolYear, 'state', 'current')) !== 1) {
            $broken[] = count($s->where(Entity::SchoolYear, 'state', 'current')).' years are current';
        }
        $twice = function (array $keys, string $what) use (&$broken): void {
            if (count($keys) !== count(array_unique($keys))) {
                $broken[] = "$what twice";
            }
        };
        $keys = fn (Entity $entity, callable $if, string ...$columns): array => array_map(fn (Row $r): string => implode('|', array_map($r->text(...), $columns)), array_values(array_filter($s->all($entity), $if)));
        $twice($keys(Entity::JoinCode, fn (Row $r): bool => $r->text('state') === 'open', 'section_id'), 'open code of a section');
        $twice($keys(Entity::Person, fn (Row $r): bool => $r->text('state') !== 'merged' && $r->maybe('number') !== null, 'school_id', 'kind', 'number'), 'number');
        $twice($keys(Entity::Enrollment, fn (Row $r): bool => $r->maybe('ends_on') === null, 'section_id', 'person_id'), 'open enrollment');
        $twice($keys(Entity::Section, fn (Row $r): bool => $r->text('state') === 'open', 'school_year_id', 'name'), 'name of an open section');
        $twice($keys(Entity::SignIn, fn (): bool => true, 'user_name'), 'user name');

        return $broken;
    }

    /** @return list<string> */
    private static function students(Snapshot $s): array
    {
        $named = $s->by(Entity::SignIn, 'person_id');
        $without = array_filter($s->all(Entity::Person), fn (Row $p): bool => $p->text('kind') === 'student' && $p->text('state') === 'active' && ! isset($named[$p->id]));

        return $without === [] ? [] : ['an active student has no user name'];
    }
}
