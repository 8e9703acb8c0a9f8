<?php

declare(strict_types=1);

namespace App\Sections;

use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\SchoolDay;
use App\Rosters\Teachers;
use App\Sections\Views\Classmate;
use App\Sections\Views\StudentSection;
use App\Sections\Views\StudentView;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** The section as one of its students sees it. */
final class StudentLook
{
    /**
     * What the student's own page shows, no more than the reader may see anyway: of other sections, those that are the
     * reader's.
     *
     * @param  Collection<int, object{id: string, given_name: string, family_name: string}>  $students
     */
    public static function of(Section $section, Person $student, Collection $students, Person $reader): StudentView
    {
        $today = SchoolDay::today($section->school_id);
        $sections = DB::table('enrollments as e')
            ->join('sections as s', 's.id', '=', 'e.section_id')
            ->where('e.person_id', $student->id)
            ->where('e.role', 'student')
            ->where(SchoolDay::inForce('e', $today))
            ->where('s.state', 'open')
            ->when(
                !Coordinators::has($reader, $section->school_id),
                fn($q) => $q->whereIn(
                    's.id',
                    fn($o) => $o
                        ->select('o.section_id')
                        ->from('enrollments as o')
                        ->where('o.person_id', $reader->id)
                        ->where('o.role', '!=', 'student')
                        ->where(SchoolDay::inForce('o', $today)),
                ),
            )
            ->orderBy('s.kind')
            ->orderBy('s.name')
            ->get(['s.id', 's.name']);
        $teachers = Teachers::of($sections->pluck('id'), $section->school_id);

        return new StudentView(
            $student->id,
            $student->calledName(),
            School::query()->findOrFail($section->school_id)->name,
            (string) DB::table('sign_ins')->where('person_id', $student->id)->orderBy('id')->value('user_name'),
            array_values(
                $sections
                    ->map(fn(object $s): StudentSection => new StudentSection($s->name, $teachers[$s->id] ?? []))
                    ->all(),
            ),
            array_values(
                $students
                    ->map(fn(object $s): Classmate => new Classmate($s->id, trim("$s->given_name $s->family_name")))
                    ->all(),
            ),
        );
    }
}
