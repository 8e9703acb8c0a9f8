<?php

declare(strict_types=1);

namespace Vantrel\Core\Sections;

use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\NameReader;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Enrolling;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\NewEnrollment;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Problem;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Enrollment;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Values\GradeLevel;

/** Making many sections at once: from a pasted list, a pattern with grades and groups, or last year's. */
final class ManySections
{
    /**
     * Reads a pasted list: a name in each line, then grade, period, seats and lead where tabs or semicolons part them.
     *
     * @return list<NewSection>
     *
     * @throws Refusal naming the line that cannot be read
     */
    public static function fromText(string $text, string $kind): array
    {
        $sections = [];
        foreach (preg_split('/\R/u', $text) ?: [] as $at => $line) {
            if (trim($line) === '') {
                continue;
            }
            $cells = array_map(trim(...), explode(str_contains($line, "\t") ? "\t" : ';', $line));
            $number = $at + 1;
            $grade =
                ($cells[1] ?? '') === ''
                    ? null
                    : GradeLevel::read($cells[1]) ??
                        throw new Refusal(
                            "Line $number: “{$cells[1]}” is not a grade. Write PK, K, or a number from 1 to 13.",
                            'text',
                        );
            $seats =
                ($cells[3] ?? '') === ''
                    ? null
                    : (ctype_digit($cells[3])
                        ? (int) $cells[3]
                        : throw new Refusal("Line $number: “{$cells[3]}” is not a number of seats.", 'text'));
            if (mb_strlen($cells[0]) > SectionNames::MAX) {
                throw new Refusal("Line $number: a name has at most " . SectionNames::MAX . ' characters.', 'text');
            }
            $sections[] = new NewSection(
                NameReader::tidy($cells[0]),
                $kind,
                $grade?->code(),
                ($cells[2] ?? '') === '' ? null : mb_substr($cells[2], 0, 20),
                $seats,
                $cells[4] ?? '',
            );
        }

        return $sections;
    }

    /**
     * @param  list<Section>  $sections of the year they are made in
     * @param  list<Person>  $staff of the school, active
     * @param array<string, list<Enrollment>> $teachers enrollments of staff in the sections of last year that are taken
     *     over, by section
     * @param  string  $now UTC instant
     */
    public static function plan(
        NewSections $wanted,
        array $sections,
        array $staff,
        array $teachers,
        CodeBook $book,
        Ids $ids,
        string $now,
    ): Plan {
        $plan = new PlanBuilder();
        $there = [];
        foreach ($sections as $section) {
            if ($section->state() === SectionState::Open) {
                $there[NameKey::of($section->name())] = true;
            }
        }
        $known = self::staffBook($staff);
        $made = 0;
        foreach ($wanted->sections as $i => $new) {
            $key = NameKey::of($new->name);
            $cells = [
                'Section' => Cell::same($new->name),
                'Grade' => Cell::same(GradeLevel::read((string) $new->grade)?->short() ?? ''),
                'Period' => Cell::same((string) $new->period),
                'Seats' => Cell::same((string) $new->seats),
            ];
            if ($key === '' || isset($there[$key])) {
                $plan->row(
                    new PlanRow(
                        $i + 1,
                        Verdict::Same,
                        [...$cells, 'Lead' => Cell::same('')],
                        $key === '' ? 'no name' : 'there is one of that name',
                    ),
                );

                continue;
            }
            $there[$key] = true;
            $made++;
            $problems = [];
            $lead = null;
            if ($new->lead !== '') {
                $found = $known[NameKey::of($new->lead)] ?? ($known[mb_strtolower(trim($new->lead))] ?? []);
                $lead = count($found) === 1 ? $found[0] : null;
                if ($lead === null) {
                    $problems[] = new Problem(
                        'Lead',
                        $found === []
                            ? "Nobody on the staff is called “{$new->lead}”. It is made without a lead."
                            : "Several are called “{$new->lead}”. Write the address instead; it is made " .
                                'without a lead.',
                    );
                }
            }
            $id = $ids->for('section', $key);
            $plan->insert(
                Entity::Section,
                $id,
                [
                    'school_id' => $wanted->schoolId,
                    'school_year_id' => $wanted->yearId,
                    'name' => $new->name,
                    'kind' => $new->kind,
                    'grade' => $new->grade,
                    'period' => $new->period,
                    'seats' => $new->seats,
                    'state' => 'open',
                    'carried_from' => $new->from?->id,
                ],
                $new->from === null ? 'made with others' : "from {$new->from->name()} of the year before",
            );
            if ($lead !== null) {
                Enrolling::insert($plan, $ids, new NewEnrollment($id, $lead->id, 'lead', 'hand', $wanted->beginsOn));
            }
            foreach ($new->from === null ? [] : $teachers[$new->from->id] ?? [] as $teacher) {
                if (!$teacher->role()->standsIn()) {
                    Enrolling::insert(
                        $plan,
                        $ids,
                        new NewEnrollment(
                            $id,
                            $teacher->personId(),
                            $teacher->role()->value,
                            'rollover',
                            $wanted->beginsOn,
                        ),
                    );
                }
            }
            JoinCodes::insert($plan, $id, $book, $ids, $now);
            $plan->row(
                new PlanRow(
                    $i + 1,
                    Verdict::New,
                    [...$cells, 'Lead' => Cell::same($lead === null ? '' : $lead->fullName())],
                    '',
                    $problems,
                ),
            );
        }
        $same = count($wanted->sections) - $made;

        return $plan->build(
            Words::count($made, 'new section'),
            'Makes ' .
                Words::count($made, 'section') .
                ', each with a code of its own.' .
                ($same > 0
                    ? ' ' . Words::count($same, 'name') . ' ' . ($same === 1 ? 'is' : 'are') . ' left out.'
                    : ''),
            array_values(
                array_filter(
                    [
                        new Tally('sections', $made, $made === 1 ? 'section' : 'sections'),
                        new Tally('same', $same, 'left out'),
                    ],
                    fn(Tally $t): bool => $t->count > 0,
                ),
            ),
        );
    }

    /**
     * @param  list<Person>  $staff
     * @return array<string, list<Person>> by name and by address
     */
    private static function staffBook(array $staff): array
    {
        $book = [];
        foreach ($staff as $person) {
            $book[NameKey::of($person->fullName())][] = $person;
            if ($person->email() !== null) {
                $book[$person->email()][] = $person;
            }
        }

        return $book;
    }
}
