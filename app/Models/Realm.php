<?php

declare(strict_types=1);

namespace App\Models;

use App\Platform\SchoolDay;
use Illuminate\Database\Eloquent\ModelNotFoundException;

/** The schools that something is looked at in: one, or all that somebody coordinates, seen as one. */
final readonly class Realm
{
    /** What stands in an address in place of a school's id. */
    public const ALL = 'all';

    /** @param  list<string>  $ids of schools; none for somebody who coordinates nothing */
    private function __construct(public array $ids) {}

    public static function of(School $school): self
    {
        return new self([$school->id]);
    }

    /**
     * @param  string  $word id of a school, or {@see ALL}
     *
     * @throws ModelNotFoundException where there is no such school
     */
    public static function named(string $word, ?Person $person): self
    {
        return $word === self::ALL
            ? new self($person === null ? [] : StaffStanding::of($person)->schools)
            : self::of(School::query()->findOrFail($word));
    }

    /** Only the one of them; nothing of it where it is not among them. */
    public function only(string $schoolId): self
    {
        return new self(array_values(array_intersect($this->ids, [$schoolId])));
    }

    public function isOne(): bool
    {
        return count($this->ids) === 1;
    }

    /**
     * The day it is there. Schools of a district keep one clock; where they do not, the first one's: who is in what is
     * off by some hours then.
     */
    public function today(): string
    {
        return SchoolDay::today($this->ids[0] ?? '');
    }
}
