<?php

declare(strict_types=1);

namespace Vantrel\Core\OneRoster;

use DateTimeImmutable;
use DateTimeZone;
use Exception;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Records\WorkState;
use Vantrel\Core\Table\Line;
use Vantrel\Core\Table\UnreadableList;
use Vantrel\Core\Values\CalendarDate;

/**
 * Work and results of a gradebook, as CSV tables after OneRoster 1.1 or 1.2 (IMS Global / 1EdTech, gradebook service:
 * lineItems.csv, results.csv; names of columns and of score statuses from memory). Of marks nothing is kept: only what
 * is due when, and whether it is there.
 */
final readonly class Gradebook
{
    /** What a table is unreadable without. */
    private const NEEDED = [
        'lineitems' => ['sourcedId', 'title', 'dueDate', 'classSourcedId'],
        'results' => ['lineItemSourcedId', 'studentSourcedId', 'scoreStatus'],
    ];

    /** Rows of a table: a year of a large school, section by section. */
    private const MOST = 60_000;

    private const STATES = [
        'exempt' => WorkState::Excused,
        'fully graded' => WorkState::Done,
        'partially graded' => WorkState::Done,
        'submitted' => WorkState::Done,
        'not submitted' => WorkState::Missing,
    ];

    /**
     * @param  array<string, GradebookWork>  $works by sourcedId
     * @param  list<GradebookResult>  $results
     * @param  array<string, string>  $classes sourcedId to title, where the gradebook has sent them
     * @param  array<string, array{string, string}>  $users sourcedId to number and user name, where it has sent them
     * @param  list<array{string, string}>  $leftOut place in the files, and why
     */
    private function __construct(
        public array $works,
        public array $results,
        public array $classes,
        public array $users,
        public array $leftOut,
    ) {}

    /**
     * @param  array<string, iterable<Line>>  $files name of a table in small letters, without its ending, to its lines
     * @param  string  $zone time zone of the school: a moment is a day there
     *
     * @throws UnreadableList naming the table and the column that is not there
     */
    public static function read(array $files, string $zone): self
    {
        if (!isset($files['lineitems'])) {
            throw new UnreadableList(
                'There is no lineItems.csv in it. Export the gradebook as OneRoster CSV, lineItems and results.',
            );
        }
        $leftOut = $works = $results = $classes = $users = [];
        foreach (self::rows('lineitems', $files['lineitems']) as [$number, $row]) {
            $day = self::day($row['duedate'] ?? '', $zone);
            $gone = in_array(strtolower($row['status'] ?? ''), ['tobedeleted', 'inactive'], true);
            $why = match (true) {
                ($row['sourcedid'] ?? '') === '' => 'has no sourcedId.',
                ($row['title'] ?? '') === '' && !$gone => 'has no title.',
                $day === null && !$gone => 'has no day it is due on that can be read.',
                default => null,
            };
            if ($why !== null) {
                $leftOut[] = ["lineItems.csv, row $number", $why];
                continue;
            }
            $works[$row['sourcedid']] = new GradebookWork(
                $row['sourcedid'],
                $row['title'] ?? '',
                $row['description'] ?? '',
                (string) $day,
                $row['classsourcedid'] ?? '',
                $gone,
            );
        }
        foreach (self::rows('results', $files['results'] ?? []) as [$number, $row]) {
            if (in_array(strtolower($row['status'] ?? ''), ['tobedeleted', 'inactive'], true)) {
                continue;
            }
            $work = $row['lineitemsourcedid'] ?? '';
            $said = strtolower($row['scorestatus'] ?? '');
            $missing = strtolower($row['missing'] ?? '') === 'true';
            $state = self::STATES[$said] ?? ($missing ? WorkState::Missing : null);
            if ($state === null || !isset($works[$work])) {
                $leftOut[] = [
                    "results.csv, row $number",
                    $state === null ? "has a scoreStatus that is none: “{$said}”." : 'is of no work in lineItems.csv.',
                ];
                continue;
            }
            // Where the gradebook itself says that it is missing, it is, whatever the day.
            $state = $missing && $state !== WorkState::Excused ? WorkState::Missing : $state;
            $results[] = new GradebookResult($work, $row['studentsourcedid'] ?? '', $state, !$missing);
        }
        foreach (self::rows('classes', $files['classes'] ?? []) as [, $row]) {
            $classes[$row['sourcedid'] ?? ''] = $row['title'] ?? '';
        }
        foreach (self::rows('users', $files['users'] ?? []) as [, $row]) {
            $users[$row['sourcedid'] ?? ''] = [$row['identifier'] ?? '', $row['username'] ?? ''];
        }

        return new self($works, $results, $classes, $users, $leftOut);
    }

    /**
     * Sections that its classes are: by our own id, as our rosters give it, else by a name that one section has. A book
     * of one class that is none of them is of the section it is brought into.
     *
     * @param  array<string, string>  $open names of the school's sections by id
     * @param  string|null  $only the section it is brought into; null for the whole school
     * @return array<string, string> ids by sourcedId of the class
     */
    public function sections(array $open, ?string $only): array
    {
        $byName = $found = $classes = [];
        foreach ($open as $id => $name) {
            $byName[NameKey::of($name)][] = (string) $id;
        }
        foreach ($this->works as $work) {
            $classes[$work->classId] = true;
            $named = $byName[NameKey::of($this->classes[$work->classId] ?? '')] ?? [];
            if (isset($open[$work->classId])) {
                $found[$work->classId] = $work->classId;
            } elseif (count($named) === 1) {
                $found[$work->classId] = $named[0];
            }
        }
        if ($only === null) {
            return $found;
        }
        if ($found === [] && count($classes) === 1) {
            return [(string) array_key_first($classes) => $only];
        }

        return array_filter($found, fn(string $id): bool => $id === $only);
    }

    /** @return list<string> all that the students of its results may be known by */
    public function keys(): array
    {
        $keys = [];
        foreach ($this->results as $result) {
            $keys[] = [$result->studentId, ...$this->users[$result->studentId] ?? []];
        }

        return array_values(array_filter(array_unique(array_merge(...$keys)), fn(string $key): bool => $key !== ''));
    }

    /**
     * Who its students are: by our own id, as our rosters give it, else by the number users.csv says, else by the user
     * name it says, else because the book calls them by one of the two. What two students have is nobody's.
     *
     * @param  list<KnownUser>  $known by any of its keys
     * @return array<string, string> ids by sourcedId of the user
     */
    public function students(array $known): array
    {
        $ids = $numbers = $names = [];
        foreach ($known as $user) {
            self::add($ids, $user->id, $user->now);
            self::add($numbers, $user->number, $user->now);
            self::add($names, $user->userName, $user->now);
        }
        $found = [];
        foreach ($this->results as $result) {
            $book = mb_strtolower($result->studentId);
            [$number, $name] = array_map(mb_strtolower(...), $this->users[$result->studentId] ?? ['', '']);
            $found[$result->studentId] ??=
                $ids[$book] ?? ($numbers[$number] ?? ($names[$name] ?? ($numbers[$book] ?? ($names[$book] ?? ''))));
        }

        return array_filter($found, fn(string $id): bool => $id !== '');
    }

    /** @param  array<string, string>  $by ids by key, as it grows; none where two have it */
    private static function add(array &$by, ?string $key, string $id): void
    {
        $key = mb_strtolower((string) $key);
        if ($key !== '') {
            $by[$key] = ($by[$key] ?? $id) === $id ? $id : '';
        }
    }

    /**
     * @param  iterable<Line>  $lines
     * @return iterable<array{int, array<string, string>}> number in the file, and cells by column in small letters
     */
    private static function rows(string $table, iterable $lines): iterable
    {
        $header = null;
        $count = 0;
        foreach ($lines as $line) {
            if ($header === null) {
                $header = array_map(fn(string $c): string => strtolower(trim($c)), $line->cells);
                foreach (self::NEEDED[$table] ?? [] as $column) {
                    if (!in_array(strtolower($column), $header, true)) {
                        throw new UnreadableList(
                            self::named($table) .
                                " has no column $column. Export the gradebook as OneRoster CSV again.",
                        );
                    }
                }
                continue;
            }
            if ($line->isBlank()) {
                continue;
            }
            if (++$count > self::MOST) {
                throw new UnreadableList(
                    self::named($table) .
                        ' has more than ' .
                        number_format(self::MOST) .
                        ' rows. Export one term of it.',
                );
            }
            $row = [];
            foreach ($header as $i => $column) {
                $row[$column] = $line->bare($i);
            }
            yield [$line->number, $row];
        }
    }

    private static function named(string $table): string
    {
        return ($table === 'lineitems' ? 'lineItems' : $table) . '.csv';
    }

    /** A date, or the day of a moment at the school: the last minute of a Thursday there is Friday in UTC. */
    private static function day(string $cell, string $zone): ?string
    {
        // A day alone, or the midnight in Greenwich that programs write for one (common practice, no source).
        if (preg_match('/^(\d{4}-\d{2}-\d{2})T00:00:00(\.0+)?Z$/', $cell, $m) === 1) {
            return CalendarDate::read($m[1], null);
        }
        if (preg_match('/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}/', $cell) !== 1) {
            return CalendarDate::read($cell, null);
        }
        try {
            return (new DateTimeImmutable($cell, new DateTimeZone('UTC')))
                ->setTimezone(new DateTimeZone($zone))
                ->format('Y-m-d');
        } catch (Exception) {
            return null;
        }
    }
}
