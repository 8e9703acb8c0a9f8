<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Plan\Choice;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\Question;
use Vantrel\Core\Plan\Snapshot;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Section;
use Vantrel\Core\Records\SectionKind;
use Vantrel\Core\Records\SectionState;
use Vantrel\Core\Sections\SectionNames;
use Vantrel\Core\Values\GradeLevel;

/** The sections a list names: those of the school's year, and the new ones it needs. */
final class SectionBook
{
    /** The question that kept the last row from being placed. */
    public ?string $question = null;

    /** @var array<string, Section> plain name to open section of this school and year */
    private array $known = [];

    /** @var array<string, Section> plain name to section of this school and year that has been archived */
    private array $archived = [];

    /** @var array<string, true> ids of questions that are in the plan */
    private array $asked = [];

    /** @var array<string, SectionPlace> plain name to section the plan makes */
    private array $made = [];

    public function __construct(
        private readonly Snapshot $snapshot,
        private readonly IntakeWish $wish,
        private readonly Ids $ids,
        private readonly PlanBuilder $plan,
    ) {
        foreach ($snapshot->all(Section::class) as $section) {
            if ($section->schoolId() === $wish->schoolId && $section->schoolYearId() === $wish->yearId) {
                if ($section->state() === SectionState::Open) {
                    $this->known[self::key($section->name())] = $section;
                } else {
                    $this->archived[self::key($section->name())] = $section;
                }
            }
        }
    }

    /** @return list<SectionPlace>|null null while it is not settled which section is meant */
    public function placesFor(StudentLine $line): ?array
    {
        $this->question = null;
        $places = [];
        $written = $line->homeroom === '' ? [] : [[$line->homeroom, true]];
        foreach ($line->sections as $name) {
            $written[] = [$name, false];
        }
        $open = false;
        foreach ($written as [$name, $homeroom]) {
            $place = $this->place($name, $homeroom, $line->grade, $line->number, $line->sheet);
            if ($place === false) {
                $open = true;
            } elseif ($place !== null) {
                $places[$place->sectionId] = $place;
            }
        }

        return $open ? null : array_values($places);
    }

    /**
     * The section of a name, made if it is not there.
     *
     * @param bool $exact whether a name that is nearly one that is there is meant as it stands, as in a list of
     *     sections
     * @return SectionPlace|null null where it is to be left out, or is not settled
     */
    public function placeFor(string $name, bool $homeroom, string $grade, int $row, bool $exact = false): ?SectionPlace
    {
        $place = $this->place($name, $homeroom, $grade, $row, '', $exact);

        return $place === false ? null : $place;
    }

    /** What tells sections apart: names as they sound, and the signs in them, so that “Art 🎨” is not “Art ⚽”. */
    private static function key(string $name): string
    {
        preg_match_all('/[\p{So}\p{Sm}]/u', $name, $signs);

        return trim(NameKey::of($name) . ' ' . implode('', $signs[0]));
    }

    /** The open section of this name that is there. */
    public function known(string $name): ?Section
    {
        return $this->known[self::key($name)] ?? null;
    }

    public function nameOf(string $sectionId): string
    {
        return $this->snapshot->find(Section::class, $sectionId)?->name() ?? '';
    }

    public function isHere(string $sectionId): bool
    {
        return $this->snapshot->find(Section::class, $sectionId)?->schoolId() === $this->wish->schoolId;
    }

    public function warnOfNew(): void
    {
        if ($this->made !== []) {
            $names = array_values(array_map(fn(SectionPlace $p): string => $p->name, $this->made));
            $this->plan->warn(
                (count($names) === 1
                    ? 'A section that is not there yet will be made: '
                    : count($names) . ' sections that are not there yet will be made: ') .
                    Words::some($names, 6) .
                    '.',
            );
        }
        foreach (array_intersect_key($this->archived, $this->made) as $section) {
            $this->plan->warn(
                "{$section->name()} was archived on " .
                    Words::day((string) $section->archivedOn()) .
                    '; this makes another section of that name, with a code of its own. To go on with the ' .
                    'old one, undo its archive in the Ledger first.',
            );
        }
    }

    /** @return SectionPlace|null|false the place; null to leave it out; false while it is asked */
    private function place(
        string $name,
        bool $homeroom,
        string $grade,
        int $row,
        string $sheet,
        bool $exact = false,
    ): SectionPlace|null|false {
        $key = self::key($name);
        $section = $this->known[$key] ?? null;
        if ($section !== null) {
            return $this->placeOf($section);
        }
        if (isset($this->made[$key])) {
            return $this->made[$key];
        }
        $near = $exact ? null : $this->nearest($key);
        if ($near !== null) {
            $id = substr(hash('sha256', "section|$key|{$near->id}"), 0, 20);
            $answer = $this->wish->answers[$id] ?? null;
            $this->askOnce(
                new Question(
                    $id,
                    $row,
                    "Is “{$name}” {$near->name()}?",
                    "row $row: no section is called “{$name}”",
                    [
                        new Choice('use', "It is {$near->name()}", 'for every row that says so', 'use'),
                        new Choice('make', "Make the section {$name}", 'with its own roster and code', 'make'),
                        new Choice(
                            'leave',
                            'Leave the section out',
                            'takes the student, and places them nowhere by this',
                            'leave',
                        ),
                    ],
                    [],
                    null,
                    in_array($answer, ['use', 'make', 'leave'], true) ? $answer : null,
                    $sheet,
                    'section',
                ),
            );
            if ($answer === 'use') {
                return $this->placeOf($near);
            }
            if ($answer === 'leave') {
                return null;
            }
            if ($answer !== 'make') {
                $this->question = $id;

                return false;
            }
        }
        if (mb_strlen($name) > SectionNames::MAX) {
            // Cut off, two of them could come to the same.
            if (!isset($this->asked[$key])) {
                $this->asked[$key] = true;
                $this->plan->warn(
                    '“' .
                        mb_substr($name, 0, 40) .
                        '…” is longer than a section’s name can be (' .
                        SectionNames::MAX .
                        " letters); its rows are placed nowhere by it. Shorten it in the list, from row $row on.",
                );
            }

            return null;
        }
        // "4 Heron", "4B": a homeroom's name begins with its grade.
        if ($grade === '' && $homeroom && preg_match('/^(\d{1,2}|K)\s*[-\/. ]?\s*\p{L}/iu', $name, $m) === 1) {
            $grade = GradeLevel::read($m[1])?->code() ?? '';
        }
        $sectionId = $this->ids->for('section', $key);
        $this->plan->insert(
            Entity::Section,
            $sectionId,
            [
                'school_id' => $this->wish->schoolId,
                'school_year_id' => $this->wish->yearId,
                'name' => $name,
                'kind' => $homeroom ? 'homeroom' : 'class',
                'grade' => $grade ?: null,
                'state' => 'open',
                'carried_from' => null,
            ],
            "named in row $row",
            $row,
        );

        return $this->made[$key] = new SectionPlace($sectionId, $name, $homeroom, $grade ?: null);
    }

    private function askOnce(Question $question): void
    {
        if (!isset($this->asked[$question->id])) {
            $this->asked[$question->id] = true;
            $this->plan->ask($question);
        }
    }

    private function placeOf(Section $section): SectionPlace
    {
        return new SectionPlace(
            $section->id,
            $section->name(),
            $section->kind() === SectionKind::Homeroom,
            $section->grade(),
        );
    }

    /** The known section that this may be a slip of: one letter off, and the digits the same. */
    private function nearest(string $key): ?Section
    {
        $digits = (string) preg_replace('/\D/', '', $key);
        foreach ($this->known as $name => $section) {
            $name = (string) $name;
            if (
                strlen($key) >= 5 &&
                preg_replace('/\D/', '', $name) === $digits &&
                abs(strlen($name) - strlen($key)) <= 1 &&
                levenshtein($name, $key) === 1 &&
                strlen((string) preg_replace('/[^a-z]/', '', $key)) >= 4
            ) {
                return $section;
            }
        }

        return null;
    }
}
