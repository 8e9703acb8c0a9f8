<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Models\Subjects;
use Closure;
use Generator;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Records\PersonKind;

/**
 * Accounts as they are held against each other: what the Roll says of them, and what else they have in common: of
 * students how their guardians are reached, of guardians their children and telephone, of staff the telephone.
 */
final class Accounts
{
    private const CHUNK = 5000;

    /**
     * @param  Closure(Builder): Builder  $where over people (`p`)
     * @return list<Subject>
     */
    public function list(PersonKind $kind, Closure $where): array
    {
        return iterator_to_array($this->each($kind, $where), false);
    }

    /**
     * One after the other, in the order of their ids: 50,000 are never held at once.
     *
     * @param  Closure(Builder): Builder  $where over people (`p`)
     * @return Generator<int, Subject>
     */
    public function each(PersonKind $kind, Closure $where): Generator
    {
        $last = '';
        do {
            $people = $where(DB::table('people as p')->where('p.kind', $kind->value))
                ->where('p.id', '>', $last)
                ->orderBy('p.id')
                ->limit(self::CHUNK)
                ->get([...array_map(fn(string $column): string => "p.$column", Subjects::COLUMNS), 'p.phone']);
            $shared = $this->shared($kind, $people);
            foreach ($people as $person) {
                yield Subjects::of($person, $shared[$person->id] ?? []);
                $last = $person->id;
            }
        } while ($people->count() === self::CHUNK);
    }

    /**
     * @param  Collection<int, stdClass>  $people
     * @return array<string, list<string>>
     */
    private function shared(PersonKind $kind, Collection $people): array
    {
        $shared = [];
        if ($kind !== PersonKind::Student) {
            foreach ($people as $person) {
                if ((string) $person->phone !== '') {
                    $shared[$person->id][] = (string) $person->phone;
                }
            }
        }
        $own = $kind === PersonKind::Guardian ? 'guardian_id' : 'student_id';
        foreach (
            DB::table('guardianships as g')
                ->join('people as c', 'c.id', '=', 'g.guardian_id')
                ->whereIn("g.$own", $people->pluck('id'))
                ->where('g.state', '!=', 'ended')
                ->get(["g.$own as own", 'g.student_id', 'c.email', 'c.phone'])
            as $g
        ) {
            $of = $kind === PersonKind::Guardian ? [$g->student_id] : [(string) $g->email, (string) $g->phone];
            foreach (array_filter($of) as $contact) {
                $shared[$g->own][] = $contact;
            }
        }

        return $shared;
    }
}
