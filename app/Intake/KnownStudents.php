<?php

declare(strict_types=1);

namespace App\Intake;

use Generator;
use Illuminate\Support\Facades\DB;
use IteratorIterator;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Names\NameBook;
use Vantrel\Core\Names\NameKey;

/**
 * Everyone of the district as the matcher sees them, read one after the other: 50,000 people are never held at once.
 */
final class KnownStudents
{
    /**
     * @param  array<string, true>  $without ids to leave out
     * @return Generator<int, Subject>
     */
    public function all(array $without = []): Generator
    {
        $contacts = new IteratorIterator(
            DB::table('guardianships as g')
                ->join('people as c', 'c.id', '=', 'g.guardian_id')
                ->where('g.state', '!=', 'ended')
                ->where('c.state', '!=', 'merged')
                ->orderBy('g.student_id')
                ->select(['g.student_id', 'c.email', 'c.phone', 'c.search_name'])
                ->cursor(),
        );
        $contacts->rewind();
        $sections = new IteratorIterator(
            DB::table('enrollments as e')
                ->join('sections as s', 's.id', '=', 'e.section_id')
                ->where('s.state', 'open')
                ->where('e.role', 'student')
                ->whereNull('e.ends_on')
                ->orderBy('e.person_id')
                ->select(['e.person_id', 's.name'])
                ->cursor(),
        );
        $sections->rewind();
        $plain = [];
        $students = DB::table('people')
            ->where('kind', 'student')
            ->where('state', '!=', 'merged')
            ->orderBy('id')
            ->select(['id', 'given_name', 'family_name', 'birth_date', 'number', 'email', 'grade', 'school_id'])
            ->cursor();
        // Three readings in one order, merged as they go along.
        foreach ($students as $s) {
            $addresses = $names = $in = [];
            while ($sections->valid() && strcmp((string) $sections->current()->person_id, $s->id) < 0) {
                $sections->next();
            }
            while ($sections->valid() && $sections->current()->person_id === $s->id) {
                $name = (string) $sections->current()->name;
                $in[] = $plain[$name] ??= NameKey::of($name);
                $sections->next();
            }
            while ($contacts->valid() && strcmp((string) $contacts->current()->student_id, $s->id) < 0) {
                $contacts->next();
            }
            while ($contacts->valid() && $contacts->current()->student_id === $s->id) {
                $c = $contacts->current();
                array_push(
                    $addresses,
                    ...array_filter([(string) $c->email, (string) $c->phone], fn(string $v): bool => $v !== ''),
                );
                if (str_contains((string) $c->search_name, ' ')) {
                    $names[] = (string) $c->search_name;
                }
                $contacts->next();
            }
            if (!isset($without[$s->id])) {
                yield new Subject(
                    $s->id,
                    $s->given_name,
                    $s->family_name,
                    (string) $s->birth_date,
                    (string) $s->number,
                    (string) $s->email,
                    (string) $s->grade,
                    $s->school_id,
                    $addresses,
                    $names,
                    $in,
                );
            }
        }
    }

    /** Figures of the school's student numbers, where nearly all have as many and some begin with 0; else 0. */
    public function numberWidth(string $schoolId): int
    {
        $widths = DB::table('people')
            ->where('school_id', $schoolId)
            ->where('kind', 'student')
            ->whereNotNull('number')
            ->where('state', '!=', 'merged')
            ->selectRaw("char_length(number) as width, count(*) as n, sum(number regexp '^0[0-9]*$') as padded")
            ->groupBy('width')
            ->orderByDesc('n')
            ->get();
        $usual = $widths->first();

        return $usual !== null && $usual->padded > 0 && $usual->n >= 20 && $usual->n >= 0.95 * $widths->sum('n')
            ? (int) $usual->width
            : 0;
    }

    public function names(): NameBook
    {
        $count = function (string $column): array {
            $counts = [];
            foreach (
                DB::table('people')
                    ->where('state', '!=', 'merged')
                    ->groupBy($column)
                    ->select([$column, DB::raw('count(*) as n')])
                    ->cursor()
                as $row
            ) {
                foreach (explode(' ', NameKey::of($row->{$column})) as $word) {
                    $counts[$word] = ($counts[$word] ?? 0) + (int) $row->n;
                }
            }

            return $counts;
        };

        return new NameBook($count('given_name'), $count('family_name'));
    }
}
