<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Records\Entity;

/**
 * Whose records a plan writes: the schools of its people and sections, looked up where the plan itself does not say.
 */
final class Ownership
{
    private const CHUNK = 1000;

    /** @var array<string, true> */
    private array $schools = [];

    /** @var array<string, array<string, true>> table to ids whose school is asked for */
    private array $asked = [];

    /** @var array<string, true> ids that the plan itself inserts: their school is counted where they are inserted */
    private array $made = [];

    /**
     * @param  array<string, string>  $held of some of its people and sections, the school they are known to be of
     * @return list<string> ids of schools
     */
    public static function of(Plan $plan, array $held): array
    {
        $self = new self();
        foreach ($plan->changes as $change) {
            if ($change->inserts()) {
                $self->made[$change->id] = true;
            }
        }
        foreach ($plan->changes as $change) {
            $self->count($change);
        }
        $self->take($held);
        $self->lookUp();
        $schools = array_map(strval(...), array_keys($self->schools));
        sort($schools);

        return $schools;
    }

    /**
     * The school that each row belongs to now.
     *
     * @param  list<string>  $ids
     * @return array<string, string> id to the id of the school; those that are gone are left out
     */
    public static function ofRows(Entity $entity, array $ids): array
    {
        $schools = [];
        foreach ((new self())->query($entity)->whereIn('t.id', $ids)->addSelect('t.id')->get() as $row) {
            $schools[(string) $row->id] = (string) $row->school;
        }

        return $schools;
    }

    private function count(Change $change): void
    {
        // A request is put to another school: that is what it is for.
        if ($change->entity === Entity::TransferRequest) {
            return;
        }
        if ($change->entity === Entity::School) {
            $this->schools[$change->id] = true;

            return;
        }
        if (isset($change->after['school_id'])) {
            $this->schools[(string) $change->after['school_id']] = true;
        }
        if (!$change->inserts()) {
            $this->asked[$change->entity->value][$change->id] = true;

            return;
        }
        $parent = match ($change->entity) {
            Entity::SignIn, Entity::Identity => [Entity::Person, 'person_id'],
            Entity::Badge => [Entity::SignIn, 'sign_in_id'],
            Entity::JoinCode,
            Entity::Enrollment,
            Entity::Invitation,
            Entity::JoinRequest,
            Entity::RoomPass,
            Entity::StudentInvitation
                => [Entity::Section, 'section_id'],
            Entity::Guardianship, Entity::FamilyLetter, Entity::GuardianClaim => [Entity::Person, 'student_id'],
            Entity::WorkResult => [Entity::Notice, 'notice_id'],
            Entity::KnownApart => [Entity::Person, 'left_id'],
            default => null,
        };
        $id = $parent === null ? '' : (string) ($change->after[$parent[1]] ?? '');
        if ($parent !== null && !isset($this->made[$id])) {
            $this->asked[$parent[0]->value][$id] = true;
        }
        if ($change->entity === Entity::KnownApart) {
            $this->asked[Entity::Person->value][(string) ($change->after['right_id'] ?? '')] = true;
        }
    }

    /** @param  array<string, string>  $held */
    private function take(array $held): void
    {
        foreach ([Entity::Person->value, Entity::Section->value] as $table) {
            $known = array_intersect_key($held, $this->asked[$table] ?? []);
            $this->schools += array_fill_keys($known, true);
            $this->asked[$table] = array_diff_key($this->asked[$table] ?? [], $known);
        }
    }

    private function lookUp(): void
    {
        foreach ($this->asked as $table => $ids) {
            foreach (array_chunk(array_map(strval(...), array_keys($ids)), self::CHUNK) as $chunk) {
                foreach (
                    $this->query(Entity::from($table))->whereIn('t.id', $chunk)->distinct()->pluck('school')
                    as $school
                ) {
                    $this->schools[(string) $school] = true;
                }
            }
        }
    }

    private function query(Entity $entity): Builder
    {
        $query = DB::table("$entity->value as t");
        $through = fn(string $column, string $table): Builder => $query
            ->join("$table as o", 'o.id', '=', "t.$column")
            ->selectRaw('o.school_id as school');

        return match ($entity) {
            Entity::School => $query->selectRaw('t.id as school'),
            Entity::SchoolYear,
            Entity::Person,
            Entity::Coordinator,
            Entity::Section,
            Entity::LetterWording,
            Entity::GuardianInvitation,
            Entity::Notice
                => $query->selectRaw('t.school_id as school'),
            Entity::SignIn, Entity::Identity => $through('person_id', 'people'),
            Entity::Badge => $query
                ->join('sign_ins as i', 'i.id', '=', 't.sign_in_id')
                ->join('people as o', 'o.id', '=', 'i.person_id')
                ->selectRaw('o.school_id as school'),
            Entity::JoinCode,
            Entity::Enrollment,
            Entity::Invitation,
            Entity::JoinRequest,
            Entity::RoomPass,
            Entity::StudentInvitation
                => $through('section_id', 'sections'),
            Entity::Guardianship, Entity::FamilyLetter, Entity::GuardianClaim => $through('student_id', 'people'),
            Entity::KnownApart => $through('left_id', 'people'),
            Entity::WorkResult => $through('notice_id', 'notices'),
            Entity::TransferRequest => $query->selectRaw('t.to_school_id as school'),
        };
    }
}
