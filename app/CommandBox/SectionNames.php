<?php

declare(strict_types=1);

namespace App\CommandBox;

use App\Models\Coordinators;
use App\Models\Person;
use App\Models\School;
use App\Models\Section;
use App\Platform\SchoolDay;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Names\NameKey;

/** Which sections somebody means. */
final class SectionNames
{
    private const FEW = 5;

    /**
     * The open section of the school's current year that is called so; else those whose name has all of it, the
     * shortest first. Staff who do not coordinate mean their own.
     *
     * @return list<Section>
     */
    public function called(School $school, string $text, Person $reader): array
    {
        $own = Coordinators::has($reader, $school->id)
            ? null
            : DB::table('enrollments as e')
                ->where('e.person_id', $reader->id)
                ->where('e.role', '!=', 'student')
                ->where(SchoolDay::inForce('e', SchoolDay::today($school->id)))
                ->select('e.section_id');
        $sections = Section::query()
            ->where('school_id', $school->id)
            ->where('state', 'open')
            ->whereIn(
                'school_year_id',
                fn($q) => $q
                    ->select('id')
                    ->from('school_years')
                    ->where('school_id', $school->id)
                    ->where('state', 'current'),
            )
            ->when($own !== null, fn($q) => $q->whereIn('id', $own))
            ->orderByRaw('char_length(name), name')
            ->get();
        $wanted = NameKey::of($text);
        $keys = $sections->mapWithKeys(fn(Section $s): array => [$s->id => NameKey::of($s->name)]);
        $exact = $sections->filter(fn(Section $s): bool => $keys[$s->id] === $wanted);
        $words = array_filter(explode(' ', $wanted), fn(string $w): bool => $w !== '');

        return array_values(
            ($exact->isNotEmpty() || $words === []
                ? $exact
                : $sections->filter(
                    fn(Section $s): bool => array_filter(
                        $words,
                        fn(string $w): bool => !str_contains((string) $keys[$s->id], $w),
                    ) === [],
                )
            )
                ->take(self::FEW)
                ->all(),
        );
    }
}
