<?php

declare(strict_types=1);

namespace App\Access;

use App\Models\Person;
use App\Platform\Resource;
use Illuminate\Support\Facades\DB;

/** Who is signed in and where they can work. */
final readonly class Me extends Resource
{
    /** @param  list<SchoolChoice>  $schools */
    public function __construct(public string $id, public string $name, public string $kind, public array $schools)
    {
    }

    public static function of(Person $person): self
    {
        $coordinated = DB::table('coordinators')->where('person_id', $person->id)->pluck('school_id')->all();
        $years = [];
        foreach (DB::table('school_years')->orderByDesc('begins_on')->get(['id', 'school_id', 'name', 'state']) as $year) {
            $years[$year->school_id][] = new YearChoice($year->id, $year->name, $year->state);
        }
        $schools = $person->kind !== 'staff' ? [] : DB::table('schools as s')
            ->leftJoin('school_years as y', fn ($j) => $j->on('y.school_id', '=', 's.id')->where('y.state', 'current'))
            ->where(fn ($q) => $q->whereIn('s.id', $coordinated)->orWhere('s.id', $person->school_id))
            ->orderBy('s.lowest_grade')->orderBy('s.name')->get(['s.id', 's.code', 's.name', 's.lowest_grade', 's.highest_grade', 'y.id as year_id', 'y.name as year'])
            ->map(fn (object $s): SchoolChoice => new SchoolChoice($s->id, $s->code, $s->name, (string) $s->year_id, (string) $s->year, in_array($s->id, $coordinated, true), $s->lowest_grade, $s->highest_grade, GradeChoice::between($s->lowest_grade, $s->highest_grade), $years[$s->id] ?? []))->all();

        return new self($person->id, $person->fullName(), $person->kind, array_values($schools));
    }
}
