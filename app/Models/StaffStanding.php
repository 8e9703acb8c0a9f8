<?php

declare(strict_types=1);

namespace App\Models;

use App\Platform\SchoolDay;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Accounts\SecondFactorRule;

/**
 * What a member of staff coordinates, and what second factor the schools they work in ask for: read once for a request,
 * with whoever makes it, for the gates and pages that all ask it. Who writes asks
 * {@see Coordinators::schoolsOf()} under their locks instead.
 */
final readonly class StaffStanding
{
    /**
     * @param  list<string>  $schools ids of those they coordinate, in order
     * @param  bool  $mustHaveSecondFactor whether one of their schools asks for one: the strictest of them counts
     * @param  bool  $hasSecondFactor whether they have one that is on
     */
    private function __construct(
        public array $schools,
        public bool $mustHaveSecondFactor,
        public bool $hasSecondFactor,
    ) {}

    public static function of(Person $person): self
    {
        if ($person->kind !== 'staff') {
            return new self([], false, false);
        }
        $request = request();
        // A worker has one request for all its jobs: only what came by a route begins and ends.
        if ($request->route() === null) {
            return self::read($person);
        }
        $kept = $request->attributes->get(self::key($person));
        if (!($kept instanceof self)) {
            $request->attributes->set(self::key($person), $kept = self::read($person));
        }

        return $kept;
    }

    /** For a statement that reads people: what {@see keep()} takes. */
    public static function column(): Builder
    {
        $coordinated = DB::table('coordinators as c')
            ->join('schools as s', 's.id', '=', 'c.school_id')
            ->whereColumn('c.person_id', 'people.id')
            ->where('c.state', 'active')
            ->selectRaw("JSON_ARRAYAGG(JSON_OBJECT('id', s.id, 'rule', s.second_factor) ORDER BY s.id)");

        $factor = DB::table('second_factors as f')
            ->whereColumn('f.person_id', 'people.id')
            ->whereNotNull('f.confirmed_at')
            ->selectRaw('COUNT(*)');

        return DB::table('schools as home')
            ->whereColumn('home.id', 'people.school_id')
            ->selectRaw(
                "JSON_OBJECT('id', home.id, 'rule', home.second_factor, 'zone', home.time_zone, 'factor', (" .
                    $factor->toSql() .
                    "), 'coordinated', (" .
                    $coordinated->toSql() .
                    '))',
                [...$factor->getBindings(), ...$coordinated->getBindings()],
            );
    }

    /** Keeps for a request what was read with the person who makes it. */
    public static function keep(Request $request, Person $person, string $column): void
    {
        $request->attributes->set(self::key($person), self::from($person, $column));
    }

    public function coordinates(string $schoolId): bool
    {
        return in_array($schoolId, $this->schools, true);
    }

    private static function key(Person $person): string
    {
        return self::class . ' ' . $person->id;
    }

    private static function read(Person $person): self
    {
        return self::from(
            $person,
            (string) DB::table('people')
                ->where('id', $person->id)
                ->selectSub(self::column(), 'standing')
                ->value('standing'),
        );
    }

    private static function from(Person $person, string $column): self
    {
        /**
         * @var array{id: string, rule: string, zone: string, factor: int,
         *     coordinated: list<array{id: string, rule: string}>|null} $at
         */
        $at = json_decode($column, true, 8, JSON_THROW_ON_ERROR);
        SchoolDay::know($at['id'], $at['zone']);
        // Who has left coordinates nothing.
        $coordinated = $person->state === 'active' ? $at['coordinated'] ?? [] : [];
        $asks = SecondFactorRule::from($at['rule'])->asks(true, false);
        foreach ($coordinated as $school) {
            $asks = $asks || SecondFactorRule::from($school['rule'])->asks($school['id'] === $at['id'], true);
        }

        return new self(array_column($coordinated, 'id'), $asks, $at['factor'] === 1);
    }
}
