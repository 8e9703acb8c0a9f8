<?php

declare(strict_types=1);

namespace App\Ledger;

use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use LogicException;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Records\Entity;

/**
 * What an entry has written, undone or done again, reckoned once from its changes and handed with the event to whoever
 * keeps something up to date: nobody asks the ledger for what has just been written to it. What the changes themselves
 * do not say, whose record an altered one is, is looked up once for all who ask.
 */
final class Affected
{
    private const CHUNK = 1000;

    /** Columns by which a record belongs to somebody. */
    private const OWNERS = ['person_id', 'sign_in_id', 'student_id', 'guardian_id', 'left_id'];

    /** @var array<string, list<string>> table to ids of the records */
    private array $rows = [];

    /** @var array<string, list<string>> table to ids of those that were there and are in another state now */
    private array $moved = [];

    /** @var list<string> people who were there before: only they can have ties that the entry does not hold */
    private array $were = [];

    /** @var array<string, true> people of whom an account is made that is no student's */
    private array $grown = [];

    /** @var array<string, array<string, array<string, true>>> table, column, ids that the changes name */
    private array $named = [];

    /** @var array<string, array<string, list<string>>> table, column, ids of records whose owner no change says */
    private array $unsaid = [];

    /** @var array<string, true> people of whom something changed that they are found by */
    private array $renamed = [];

    /** @var list<string> see {@see ties()} */
    private array $untied = [];

    /** @var array<string, list<string>> what was looked up, for whoever asks the same next */
    private array $known = [];

    /** What people are found by: words of these columns. */
    private const WORDS = [
        'given_name',
        'family_name',
        'preferred_name',
        'number',
        'email',
        'phone',
        'state',
        'merged_into',
    ];

    /** @param  iterable<Change>  $changes */
    public static function by(iterable $changes): self
    {
        $self = new self();
        foreach ($changes as $change) {
            $self->add($change);
        }

        return $self;
    }

    public function add(Change $change): void
    {
        $table = $change->entity->value;
        $this->rows[$table][] = $change->id;
        if (!$change->inserts() && isset($change->before['state'])) {
            $this->moved[$table][] = $change->id;
        }
        if ($change->entity === Entity::Person) {
            if (!$change->inserts()) {
                $this->were[] = $change->id;
            } elseif (($change->after['kind'] ?? 'student') !== 'student') {
                $this->grown[$change->id] = true;
            }
        }
        foreach (self::OWNERS as $column) {
            $says = false;
            foreach ([$change->before, $change->after] as $image) {
                if (array_key_exists($column, $image)) {
                    $says = true;
                    $this->named[$table][$column][(string) $image[$column]] = true;
                }
            }
            if (!$says && !$change->inserts()) {
                $this->unsaid[$table][$column][] = $change->id;
            }
        }
        if (
            $change->entity === Entity::Person &&
            ($change->inserts() || array_intersect(self::WORDS, array_keys($change->after)) !== [])
        ) {
            $this->renamed[$change->id] = true;
        }
        $images = [$change->before, $change->after];
        if (
            $change->entity === Entity::Guardianship &&
            !$change->inserts() &&
            (in_array('connected', array_column($images, 'state'), true) ||
                array_filter(array_column($images, 'restriction')) !== [])
        ) {
            $this->untied[] = $change->id;
        }
    }

    /** @return list<string> ids of the records of these kinds */
    public function rows(Entity ...$of): array
    {
        return array_merge(...array_map(fn(Entity $e): array => $this->rows[$e->value] ?? [], $of), ...[[]]);
    }

    /** @return list<string> ids of the records of this kind that were there before and changed their state */
    public function moved(Entity $of): array
    {
        return $this->moved[$of->value] ?? [];
    }

    /** @return Collection<int, string> ids of people whom other words may find now, each once and in order */
    public function renamed(): Collection
    {
        return $this->each([...array_map(strval(...), array_keys($this->renamed)), ...$this->owners(Entity::SignIn)]);
    }

    /**
     * @param  Entity  ...$through records that the reader goes by: of people it is they themselves, of others whom they
     *     belong to
     * @return Collection<int, string> ids of people, each once and in order, some of whom may be gone
     */
    public function people(Entity ...$through): Collection
    {
        $ids = [];
        foreach ($through as $of) {
            array_push(
                $ids,
                ...match ($of) {
                    Entity::Person => $this->rows($of),
                    Entity::Enrollment, Entity::SignIn => $this->owners($of),
                    Entity::Section => $this->found('enrollments', 'section_id', 'person_id', $this->moved($of)),
                    Entity::Badge => $this->found('sign_ins', 'id', 'person_id', $this->of($of, 'sign_in_id')),
                    // A guardian is one way to reach a student, and known by them.
                    Entity::Guardianship => [
                        ...$this->of($of, 'student_id'),
                        ...$this->of($of, 'guardian_id'),
                        ...($this->known['children'] ??= $this->found(
                            'guardianships',
                            'guardian_id',
                            'student_id',
                            $this->were,
                        )),
                    ],
                    Entity::KnownApart => $this->of($of, 'left_id'),
                    default => throw new LogicException("Nobody is reached by $of->value."),
                },
            );
        }

        return $this->each($ids);
    }

    /**
     * Of these people those of whom something may be kept as students.
     *
     * @param  Collection<int, string>  $people
     * @return Collection<int, string>
     */
    public function students(Collection $people): Collection
    {
        return $people->reject(fn(string $id): bool => isset($this->grown[$id]))->values();
    }

    /** @return list<string> ids of ties that were there, and are or were connected or restricted */
    public function ties(): array
    {
        return $this->untied;
    }

    /**
     * Rows of a table that go by these, looked up anew each time.
     *
     * @param  list<string>  $keys
     * @return list<string>
     */
    public function found(string $table, string $key, string $column, array $keys): array
    {
        $found = [];
        foreach (array_chunk(array_values(array_unique($keys)), self::CHUNK) as $some) {
            foreach (DB::table($table)->whereIn($key, $some)->pluck($column) as $id) {
                $found[] = (string) $id;
            }
        }

        return $found;
    }

    /** @return list<string> */
    private function owners(Entity $of): array
    {
        return $this->of($of, 'person_id');
    }

    /** @return list<string> what stands in a column that names an owner: before, after and now */
    private function of(Entity $entity, string $column): array
    {
        return [
            ...array_map(strval(...), array_keys($this->named[$entity->value][$column] ?? [])),
            ...($this->known["$entity->value $column"] ??= $this->found(
                $entity->value,
                'id',
                $column,
                $this->unsaid[$entity->value][$column] ?? [],
            )),
        ];
    }

    /**
     * @param  list<string>  $ids
     * @return Collection<int, string>
     */
    private function each(array $ids): Collection
    {
        $each = array_fill_keys($ids, true);
        unset($each['']);
        ksort($each, SORT_STRING);

        /** @var Collection<int, string> */
        return collect(array_map(strval(...), array_keys($each)));
    }
}
