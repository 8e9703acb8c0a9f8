<?php

declare(strict_types=1);

namespace Tests\Support;

use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;

/** What stands of somebody whom another school asks for. */
final class AskedAbout
{
    /**
     * What a request is answered from.
     *
     * @param  array<string, Section>  $sections
     * @param  list<Enrollment>  $enrollments
     * @param  list<string>  $numbers that somebody at the school that asks has
     */
    public static function of(Person $kai, array $sections, array $enrollments, array $numbers = []): Snapshot
    {
        $people = ['kai' => $kai];
        foreach ($numbers as $number) {
            $people[$number] = new Person($number, 1, [
                'school_id' => 'there',
                'kind' => 'student',
                'state' => 'active',
                'number' => $number,
            ]);
        }

        return new Snapshot(
            [
                'people' => $people,
                'sections' => $sections,
                'enrollments' => array_combine(
                    array_map(fn(Enrollment $e): string => $e->id . $e->beginsOn(), $enrollments),
                    $enrollments,
                ),
            ],
            ['here' => 'Lanternfield', 'there' => 'Copperbrook'],
        );
    }
}
