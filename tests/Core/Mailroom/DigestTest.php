<?php

declare(strict_types=1);

use Vantrel\Core\Guardians\Hears;
use Vantrel\Core\Mailroom\BoardItem;
use Vantrel\Core\Mailroom\Digest;
use Vantrel\Core\Records\NoticeKind;

function noticeOf(string $body, int $n = 0): BoardItem
{
    return new BoardItem("$n", NoticeKind::Notice, 'Trip', $body, '', '', '2026-11-25', '2026-11-25 12:00:00', null);
}

/** @param  list<BoardItem>  $items */
function digestOf(array $items): Digest
{
    return Digest::of($items, Hears::Daily, '2026-11-25 00:00:00', '2026-11-26 00:00:00', '2026-11-26');
}

it('says the beginning of a long notice, to the end of a word', function (string $body, string $said): void {
    expect(Digest::beginning($body))->toBe($said);
})->with([
    'short' => [' Bring boots. ', 'Bring boots.'],
    'as long as may be' => [str_repeat('x', 500), str_repeat('x', 500)],
    'words' => [str_repeat('boots and ', 60), rtrim(str_repeat('boots and ', 50)) . ' …'],
    'in the middle of a word' => [str_repeat('lighthouse ', 60), rtrim(str_repeat('lighthouse ', 45)) . ' …'],
    'without spaces' => [str_repeat('海', 501), str_repeat('海', 500) . ' …'],
    'one gap at the beginning' => ['see ' . str_repeat('x', 600), 'see ' . str_repeat('x', 496) . ' …'],
    'with letters of two bytes' => [str_repeat('ї ', 300), trim(str_repeat('ї ', 250)) . ' …'],
]);

it('knows whether it leaves anything out', function (): void {
    $many = fn(int $count): array => array_map(fn(int $n): BoardItem => noticeOf('', $n), range(1, $count));
    expect(digestOf($many(40))->isCut())
        ->toBeFalse()
        ->and(digestOf($many(41))->isCut())
        ->toBeTrue()
        ->and(digestOf([noticeOf(str_repeat('x', 500))])->isCut())
        ->toBeFalse()
        ->and(digestOf([noticeOf(str_repeat('x', 501))])->isCut())
        ->toBeTrue()
        ->and(digestOf([])->isCut())
        ->toBeFalse();
});

it('has room for forty lines under a heading, and counts the rest', function (int $count, int $left): void {
    $items = array_map(fn(int $n): BoardItem => noticeOf('', $n), range(1, $count));
    expect(Digest::leftOut($items))
        ->toBe($left)
        ->and(Digest::shown($items))
        ->toBe(array_slice($items, 0, $count - $left));
})->with([[1, 0], [40, 0], [41, 1], [130, 90]]);
