<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\OneRoster\Gradebook;
use Vantrel\Core\OneRoster\GradebookWork;
use Vantrel\Core\Plan\Cell;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Plan;
use Vantrel\Core\Plan\PlanBuilder;
use Vantrel\Core\Plan\PlanRow;
use Vantrel\Core\Plan\Tally;
use Vantrel\Core\Plan\Verdict;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Notice;
use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Records\WorkResult;
use Vantrel\Core\Records\WorkState;

/**
 * The plan that brings a gradebook's work and results in. Work is met again by its id there, so that the same file
 * brought in twice changes nothing; work the file does not name stays, and only what the gradebook says is gone goes.
 */
final class FromGradebook
{
    /** Rows left out that are named one by one. */
    private const MOST_SAID = 20;

    private readonly PlanBuilder $plan;

    /** @var array<string, Notice> by section and source key */
    private array $known = [];

    /** @var array<string, WorkResult> by work and student */
    private array $kept = [];

    /** @var array<string, array<string, array{WorkState, bool}>> by sourcedId of the work and person */
    private array $results = [];

    private int $missing = 0;

    /** Results of students who are not in the section. */
    private int $outside = 0;

    /** @var array<string, int> */
    private array $counts = ['new' => 0, 'update' => 0, 'leaving' => 0];

    /**
     * @param  array<string, string>  $names of sections by id
     * @param  array<string, string>  $students ids by sourcedId
     * @param  array<string, list<string>>  $in ids of students by section
     * @param  list<Notice>  $notices work of these sections that has come from a gradebook
     * @param  list<WorkResult>  $kept of that work
     */
    private function __construct(
        private readonly Gradebook $book,
        private readonly array $names,
        array $students,
        private readonly array $in,
        array $notices,
        array $kept,
        private readonly string $schoolId,
        private readonly ?string $by,
        private readonly Occasion $at,
    ) {
        $this->plan = new PlanBuilder();
        foreach ($notices as $notice) {
            $this->known["{$notice->sectionId()} {$notice->sourceKey()}"] = $notice;
        }
        foreach ($kept as $result) {
            $this->kept["{$result->workId()} {$result->personId()}"] = $result;
        }
        foreach ($book->results as $result) {
            $student = $students[$result->studentId] ?? null;
            if ($student !== null) {
                $this->results[$result->workId][$student] = [$result->state, $result->onceDue];
            }
        }
    }

    /**
     * @param  array<string, string>  $sections ids by sourcedId of the class; of others nothing is brought in
     * @param  array<string, string>  $names of sections by id
     * @param  array<string, string>  $students ids by sourcedId
     * @param  array<string, list<string>>  $in ids of students by section, today
     * @param  list<Notice>  $notices work of these sections that has come from a gradebook
     * @param  list<WorkResult>  $kept of that work
     * @param  string|null  $by id of who brings it in
     */
    public static function plan(
        Gradebook $book,
        array $sections,
        array $names,
        array $students,
        array $in,
        array $notices,
        array $kept,
        string $schoolId,
        ?string $by,
        Occasion $at,
    ): Plan {
        $self = new self($book, $names, $students, $in, $notices, $kept, $schoolId, $by, $at);
        $works = array_values($book->works);
        usort(
            $works,
            fn(GradebookWork $a, GradebookWork $b): int => [$a->day, $a->title, $a->id] <=> [
                $b->day,
                $b->title,
                $b->id,
            ],
        );
        $elsewhere = 0;
        $number = 0;
        foreach ($works as $work) {
            $section = $sections[$work->classId] ?? null;
            if ($section === null) {
                $elsewhere++;
            } else {
                $self->work(++$number, $work, $section);
            }
        }
        foreach (array_slice($book->leftOut, 0, self::MOST_SAID) as [$place, $why]) {
            $self->plan->warn("$place $why");
        }
        if (count($book->leftOut) > self::MOST_SAID) {
            $more = Words::count(count($book->leftOut) - self::MOST_SAID, 'more row is', 'more rows are');
            $self->plan->warn("$more left out for such reasons.");
        }
        if ($elsewhere > 0) {
            $self->plan->warn(
                Words::count($elsewhere, 'piece of work is', 'pieces of work are') .
                    ' of no section here and left out.',
            );
        }
        $unknown = count(array_filter($book->results, fn($r): bool => !isset($students[$r->studentId])));
        if ($unknown > 0) {
            $self->plan->warn(Words::count($unknown, 'result is', 'results are') . ' of nobody known here.');
        }

        if ($self->outside > 0) {
            $count = Words::count($self->outside, 'result is', 'results are');
            $self->plan->warn("$count of students not in the section.");
        }

        return $self->built();
    }

    private function work(int $number, GradebookWork $work, string $section): void
    {
        $notice = $this->known["$section $work->id"] ?? null;
        $title = self::cut($work->title, NoticeText::MOST_TITLE);
        $body = self::cut($work->body, NoticeText::MOST_BODY);
        $columns = ['title' => $title, 'body' => $body === '' ? null : $body, 'on_day' => $work->day];
        if ($work->gone) {
            if ($notice !== null && $notice->isLive()) {
                $this->plan->update($notice, ['state' => 'withdrawn'], 'gone from the gradebook');
                $this->row($number, Verdict::Leaving, $section, $notice->title(), $notice->day(), $notice, 0);
            }

            return;
        }
        if ($notice !== null && !$notice->isLive()) {
            // What has been withdrawn here stays so.
            $this->row(
                $number,
                Verdict::Same,
                $section,
                $notice->title(),
                $notice->day(),
                $notice,
                0,
                'withdrawn here',
            );

            return;
        }
        $id = $notice === null ? $this->at->ids->for('notice', $section, $work->id) : $notice->id;
        $results = $this->results($work, $section, $id);
        $writes = $this->writes($results, $id);
        // Somebody has looked at it once there is anything to say.
        $looked = $writes ? ['gone_through_at' => $this->at->now] : [];
        $missing = count(array_filter($results, fn(WorkState $s): bool => $s === WorkState::Missing));
        $this->missing += $missing;
        if ($notice === null) {
            $this->plan->insert(
                Entity::Notice,
                $id,
                [
                    'school_id' => $this->schoolId,
                    'section_id' => $section,
                    'kind' => NoticeKind::Work->value,
                    'readers' => 'all',
                    ...$columns,
                    'texts' => null,
                    'state' => 'live',
                    'gone_through_at' => $looked['gone_through_at'] ?? null,
                    'made_by' => $this->by,
                    'made_at' => $this->at->now,
                    'source_key' => $work->id,
                ],
                'from the gradebook',
            );
        } else {
            $this->plan->update($notice, [...$columns, ...$looked], 'from the gradebook');
        }
        foreach ($results as $student => $state) {
            $kept = $this->kept["$id $student"] ?? null;
            if ($kept !== null) {
                $this->plan->update($kept, ['state' => $state->value], $state->value);
            } else {
                $this->plan->insert(
                    Entity::WorkResult,
                    $this->at->ids->for('result', $id, $student),
                    ['notice_id' => $id, 'person_id' => $student, 'state' => $state->value],
                    $state->value,
                );
            }
        }
        $changes = $writes || $this->plan->changes(Entity::Notice, $id);
        $verdict = $notice === null ? Verdict::New : ($changes ? Verdict::Update : Verdict::Same);
        $this->row($number, $verdict, $section, $title, $work->day, $notice, $missing);
    }

    /** @return array<string, WorkState> by student of the section */
    private function results(GradebookWork $work, string $section, string $id): array
    {
        $states = [];
        foreach ($this->results[$work->id] ?? [] as $student => [$state, $onceDue]) {
            // Nothing has come yet: that is no news before the day, unless it takes back what was said.
            $early = $state === WorkState::Missing && $onceDue && $work->day >= $this->at->today;
            $isIn = in_array($student, $this->in[$section] ?? [], true);
            $this->outside += $isIn ? 0 : 1;
            if ($isIn && !$early) {
                $states[(string) $student] = $state;
            }
        }
        ksort($states);

        return $states;
    }

    /** @param  array<string, WorkState>  $states */
    private function writes(array $states, string $id): bool
    {
        foreach ($states as $student => $state) {
            if (($this->kept["$id $student"] ?? null)?->state() !== $state) {
                return true;
            }
        }

        return false;
    }

    private function row(
        int $number,
        Verdict $verdict,
        string $section,
        string $title,
        ?string $day,
        ?Notice $was,
        int $missing,
        string $why = '',
    ): void {
        if (isset($this->counts[$verdict->value])) {
            $this->counts[$verdict->value]++;
        }
        $new = $was === null;
        $this->plan->row(
            new PlanRow(
                $number,
                $verdict,
                [
                    'Work' => new Cell($new ? '' : $was->title(), $title),
                    'Section' => Cell::same($this->names[$section] ?? ''),
                    'Due' => new Cell($new ? '' : Words::day((string) $was->day()), Words::day((string) $day)),
                    'Missing from' => Cell::same($missing === 0 ? '' : (string) $missing),
                ],
                $why,
            ),
        );
    }

    private function built(): Plan
    {
        ['new' => $new, 'update' => $changed, 'leaving' => $gone] = $this->counts;
        $parts = array_filter([
            $new > 0 ? Words::count($new, 'piece of work', 'pieces of work') . ' new' : '',
            $changed > 0 ? "$changed changed" : '',
            $gone > 0 ? "$gone withdrawn" : '',
            $new + $changed > 0 && $this->missing > 0 ? "$this->missing missing in all" : '',
        ]);

        return $this->plan->build(
            'From a gradebook: ' . Words::count($new + $changed + $gone, 'piece of work', 'pieces of work'),
            $parts === [] ? 'Nothing is new in it.' : ucfirst(implode(', ', $parts)) . '.',
            [
                new Tally('new', $new, 'new'),
                new Tally('update', $changed, 'changed'),
                new Tally('leaving', $gone, 'withdrawn'),
            ],
        );
    }

    private static function cut(string $text, int $most): string
    {
        $text = trim((string) preg_replace(['/\R/u', '/[^\P{Cc}\n]/u'], ["\n", ''], $text));
        $text = $most === NoticeText::MOST_TITLE ? Line::of($text) : $text;

        return mb_strlen($text) > $most ? mb_substr($text, 0, $most - 1) . '…' : $text;
    }
}
