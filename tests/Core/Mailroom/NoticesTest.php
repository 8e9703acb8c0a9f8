<?php

declare(strict_types=1);

use Vantrel\Core\Mailroom\Board;
use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Mailroom\Notices;
use Vantrel\Core\Mailroom\NoticeText;
use Vantrel\Core\Mailroom\NoticeWish;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Records\Notice;
use Vantrel\Core\Records\NoticeKind;
use Vantrel\Core\Records\WorkResult;
use Vantrel\Core\Records\WorkState;

beforeEach(function (): void {
    $this->at = new Occasion(new Ids('01K00000000000000000000000'), '2026-11-27', '2026-11-27 09:00:00');
    $this->wish = fn(NoticeKind $kind, ?string $day = '2026-12-04', array $texts = []): NoticeWish => new NoticeWish(
        $kind,
        new NoticeText('Reading log', "Ten pages\r\na day."),
        $day,
        false,
        $texts,
    );
    $this->notice = fn(array $more = []): Notice => new Notice('n', 1, [
        'school_id' => 's',
        'section_id' => 'c',
        'kind' => 'work',
        'title' => 'Reading log',
        'state' => 'live',
        ...$more,
    ]);
});

it('publishes what is whole, and refuses what is not, naming the field', function (): void {
    $plan = Notices::publish(($this->wish)(NoticeKind::Work), 's', 'c', 'me', $this->at);
    expect($plan->changes)
        ->toHaveCount(1)
        ->and($plan->changes[0]->after)
        ->toMatchArray(['body' => "Ten pages\na day.", 'on_day' => '2026-12-04', 'state' => 'live', 'texts' => null]);
    $refused = function (callable $try): ?string {
        try {
            $try();
        } catch (Refusal $e) {
            return $e->field;
        }

        return 'taken';
    };
    expect($refused(fn() => ($this->wish)(NoticeKind::Date, null)))
        ->toBe('day')
        ->and($refused(fn() => new NoticeText(" \u{202E} ", 'x')))
        ->toBe('title')
        ->and($refused(fn() => new NoticeText(str_repeat('x', 121), '')))
        ->toBe('title')
        ->and($refused(fn() => new NoticeText('x', str_repeat('x', 2001))))
        ->toBe('body')
        ->and($refused(fn() => Notices::publish(($this->wish)(NoticeKind::Work), 's', null, 'me', $this->at)))
        ->toBe('kind')
        ->and(
            $refused(
                fn() => Notices::publish(($this->wish)(NoticeKind::Date, '0026-12-04'), 's', 'c', 'me', $this->at),
            ),
        )
        ->toBe('day')
        ->and(
            $refused(
                fn() => Notices::publish(($this->wish)(NoticeKind::Date, '2028-11-28'), 's', 'c', 'me', $this->at),
            ),
        )
        ->toBe('day')
        ->and(
            $refused(
                fn() => Notices::publish(($this->wish)(NoticeKind::Date, '2028-11-27'), 's', 'c', 'me', $this->at),
            ),
        )
        ->toBe('taken')
        ->and($refused(fn() => ($this->wish)(NoticeKind::Notice, null, ['de' => new NoticeText('x', '')])))
        ->toBe('texts');
});

it('lets nothing be changed that is withdrawn, and no work become another thing', function (): void {
    expect(fn() => Notices::withdraw(($this->notice)(['state' => 'withdrawn'])))
        ->toThrow(Refusal::class)
        ->and(fn() => Notices::change(($this->notice)(), ($this->wish)(NoticeKind::Date), 1, $this->at))
        ->toThrow(Refusal::class)
        ->and(fn() => Notices::change(($this->notice)(), ($this->wish)(NoticeKind::Work, '0026-12-05'), 1, $this->at))
        ->toThrow(Refusal::class, 'years away')
        // Another has changed it since it was opened.
        ->and(fn() => Notices::change(($this->notice)(), ($this->wish)(NoticeKind::Work), 0, $this->at))
        ->toThrow(StalePlan::class, 'Nothing was saved');
    $plan = Notices::change(($this->notice)(), ($this->wish)(NoticeKind::Work, '2026-12-05'), 1, $this->at);
    expect($plan->changes[0]->after)->toMatchArray(['on_day' => '2026-12-05']);
});

it('writes who has handed in, and only what is other than before', function (): void {
    $kept = [
        new WorkResult('r1', 1, ['notice_id' => 'n', 'person_id' => 'a', 'state' => 'missing']),
        new WorkResult('r2', 1, ['notice_id' => 'n', 'person_id' => 'b', 'state' => 'done']),
    ];
    $states = ['a' => WorkState::Done, 'b' => WorkState::Done, 'c' => WorkState::Missing];
    $plan = Notices::goThrough(($this->notice)(), $states, $kept, $this->at);
    $written = array_map(fn($c): array => [$c->id, $c->after['state'] ?? null], $plan->changes);
    expect($written)
        ->toHaveCount(3)
        ->toContain(['r1', 'done'])
        ->not->toContain(['r2', 'done'])
        ->and($plan->sentence)
        ->toBe('“Reading log” is missing from 1 student.');
    expect(fn() => Notices::goThrough(($this->notice)(['kind' => 'date']), $states, [], $this->at))->toThrow(
        Refusal::class,
    );
});

it('says what is missing, coming and new, and nobody misses what nobody has gone through', function (): void {
    $item = fn(
        string $id,
        NoticeKind $kind,
        string $day,
        ?WorkState $result = null,
        string $made = '2026-11-20',
    ) => new BoardItem($id, $kind, $id, '', '', $day, $made, "$made 12:00:00", $result);
    $board = Board::of(
        [
            $item('past work, not gone through', NoticeKind::Work, '2026-11-20'),
            $item('missing', NoticeKind::Work, '2026-11-20', WorkState::Missing),
            $item('missing, older', NoticeKind::Work, '2026-11-10', WorkState::Missing),
            $item('done', NoticeKind::Work, '2026-12-04', WorkState::Done),
            $item('excused', NoticeKind::Work, '2026-11-20', WorkState::Excused),
            $item('due', NoticeKind::Work, '2026-12-04'),
            $item('today', NoticeKind::Date, '2026-11-27'),
            $item('yesterday', NoticeKind::Date, '2026-11-26'),
            $item('far off', NoticeKind::Date, '2026-12-28'),
            $item('in thirty days', NoticeKind::Date, '2026-12-27'),
            $item('fresh', NoticeKind::Notice, '', null, '2026-11-14'),
            $item('freshest', NoticeKind::Notice, '', null, '2026-11-27'),
            $item('stale', NoticeKind::Notice, '', null, '2026-11-13'),
        ],
        '2026-11-27',
    );
    $ids = fn(array $items): array => array_map(fn(BoardItem $i): string => $i->id, $items);
    expect([$ids($board->missing), $ids($board->coming), $ids($board->new)])->toBe([
        ['missing, older', 'missing'],
        ['today', 'due', 'in thirty days'],
        ['freshest', 'fresh'],
    ]);
});

it('takes what either of two accounts of one student has handed in for handed in', function (): void {
    foreach (WorkState::cases() as $a) {
        expect($a->with(null))->toBe($a);
        foreach (WorkState::cases() as $b) {
            expect($a->with($b))->toBe($b->with($a));
        }
    }
    expect(WorkState::Missing->with(WorkState::Done))
        ->toBe(WorkState::Done)
        ->and(WorkState::Missing->with(WorkState::Excused))
        ->toBe(WorkState::Excused);
});

it('tells a guardian only of children they stand so to, by what is told', function (): void {
    $heard = fn(MessageKind $kind): array => array_map(fn($s): string => $s->value, $kind->heardBy());
    expect($heard(MessageKind::Guardian))
        ->toBe(['invited'])
        ->and($heard(MessageKind::Digest))
        ->toBe(['connected'])
        ->and($heard(MessageKind::Letter))
        ->toBe(['listed', 'invited', 'connected']);
});
