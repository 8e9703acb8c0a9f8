<?php

declare(strict_types=1);

namespace App\LookAlikes;

use App\Models\Subjects;
use Closure;
use Generator;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Matching\Subject;

/** Students as they are held against each other: what the Roll says of them, and how their guardians are reached. */
final class Students
{
    private const CHUNK = 5000;

    /**
     * @param  Closure(Builder): Builder  $where over people (`p`)
     * @return list<Subject>
     */
    public function list(Closure $where): array
    {
        return iterator_to_array($this->each($where), false);
    }

    /**
     * One after the other, in the order of their ids: 50,000 are never held at once.
     *
     * @param  Closure(Builder): Builder  $where over people (`p`)
     * @return Generator<int, Subject>
     */
    public function each(Closure $where): Generator
    {
        $last = '';
        do {
            $students = $where(DB::table('people as p')->where('p.kind', 'student'))
                ->where('p.id', '>', $last)
                ->orderBy('p.id')
                ->limit(self::CHUNK)
                ->get(array_map(fn(string $column): string => "p.$column", Subjects::COLUMNS));
            $contacts = [];
            foreach (
                DB::table('guardianships as g')
                    ->join('people as c', 'c.id', '=', 'g.guardian_id')
                    ->whereIn('g.student_id', $students->pluck('id'))
                    ->where('g.state', '!=', 'ended')
                    ->get(['g.student_id', 'c.email', 'c.phone'])
                as $c
            ) {
                foreach (array_filter([(string) $c->email, (string) $c->phone]) as $contact) {
                    $contacts[$c->student_id][] = $contact;
                }
            }
            foreach ($students as $student) {
                yield Subjects::of($student, $contacts[$student->id] ?? []);
                $last = $student->id;
            }
        } while ($students->count() === self::CHUNK);
    }
}
