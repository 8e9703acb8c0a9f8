<?php

declare(strict_types=1);

namespace App\Intake;

use App\Models\Subjects;
use Generator;
use Illuminate\Support\Facades\DB;
use IteratorIterator;
use Vantrel\Core\Intake\SchoolFacts;
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
            ->select(Subjects::COLUMNS)
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
                yield Subjects::of($s, $addresses, $names, $in);
            }
        }
    }

    /** @return list<array{int, int, int}> as {@see SchoolFacts::usualWidth()} takes them */
    public function numberWidths(string $schoolId): array
    {
        return array_values(
            DB::table('people')
                ->where('school_id', $schoolId)
                ->where('kind', 'student')
                ->whereNotNull('number')
                ->where('state', '!=', 'merged')
                ->selectRaw("char_length(number) as width, count(*) as n, sum(number regexp '^0[0-9]*$') as padded")
                ->groupBy('width')
                ->get()
                ->map(fn(object $w): array => [(int) $w->width, (int) $w->n, (int) $w->padded])
                ->all(),
        );
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
