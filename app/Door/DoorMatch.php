<?php

declare(strict_types=1);

namespace App\Door;

use App\Models\Subjects;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use stdClass;
use Vantrel\Core\Matching\Beginnings;
use Vantrel\Core\Matching\Candidate;
use Vantrel\Core\Matching\Matcher;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Names\PersonName;

/** Who on a school's Roll somebody at the door may be. */
final class DoorMatch
{
    /**
     * More than share beginnings with anybody in the largest schools: nobody is passed over for the order of the table.
     */
    private const MOST = 2000;

    /** @return list<Candidate> likeliest first, at most five */
    public function of(string $schoolId, PersonName $name, ?string $birthDate, ?string $number, ?string $grade): array
    {
        $row = new Subject(
            'door',
            $name->given,
            $name->family,
            (string) $birthDate,
            (string) $number,
            '',
            (string) $grade,
            $schoolId,
        );
        $known = $this->near($schoolId, $name, $birthDate, $number);
        if ($known === []) {
            return [];
        }

        return array_slice(Matcher::link([$row], $known)->candidates('door'), 0, 5);
    }

    /**
     * Students worth comparing: who share beginnings of the name, or the number, or the birth date.
     *
     * @return list<Subject>
     */
    private function near(string $schoolId, PersonName $name, ?string $birthDate, ?string $number): array
    {
        $beginnings = Beginnings::of($name);
        $begins = fn(Builder $q, array $words): Builder => $q->where(function (Builder $any) use ($words): void {
            foreach ($words as $word) {
                $any->orWhere('search_name', 'like', "$word%")->orWhere('search_name', 'like', "% $word%");
            }
        });
        $students = DB::table('people')
            ->where('school_id', $schoolId)
            ->where('kind', 'student')
            ->where('state', 'active')
            ->where(function (Builder $q) use ($beginnings, $begins, $birthDate, $number): void {
                if ($beginnings !== null) {
                    $q->orWhere(
                        fn(Builder $both): Builder => $begins($begins($both, $beginnings->given), $beginnings->family),
                    );
                }
                if ($birthDate !== null) {
                    $q->orWhere('birth_date', $birthDate);
                }
                if ($number !== null) {
                    $q->orWhere('number', $number);
                }
                $q->orWhereRaw('1 = 0');
            })
            ->limit(self::MOST)
            ->get(Subjects::COLUMNS);

        return array_values($students->map(fn(stdClass $s): Subject => Subjects::of($s))->all());
    }
}
