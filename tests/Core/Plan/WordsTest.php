<?php

declare(strict_types=1);

use Vantrel\Core\Plan\Words;

it('counts in words', function (): void {
    expect(Words::count(1, 'student'))
        ->toBe('1 student')
        ->and(Words::count(0, 'student'))
        ->toBe('0 students')
        ->and(Words::count(1240, 'student'))
        ->toBe('1,240 students')
        ->and(Words::count(3, 'person', 'people'))
        ->toBe('3 people');
});

it('joins what there is, and says how many more', function (): void {
    expect(Words::join([]))
        ->toBe('')
        ->and(Words::join(['a']))
        ->toBe('a')
        ->and(Words::join(['a', 'b']))
        ->toBe('a and b')
        ->and(Words::join(['a', 'b', 'c']))
        ->toBe('a, b and c')
        ->and(Words::some(['a', 'b', 'c']))
        ->toBe('a, b and c')
        ->and(Words::some(['a', 'b', 'c', 'd']))
        ->toBe('a, b, c and 1 more')
        ->and(Words::some(['a', 'b', 'c'], 1))
        ->toBe('a and 2 more');
});

// The months as PHP's own calendar names them.
it('writes a day as it is said', function (): void {
    for ($month = 1; $month <= 12; $month++) {
        $day = new DateTimeImmutable(sprintf('2026-%02d-0%d', $month, ($month % 9) + 1));
        expect(Words::day($day->format('Y-m-d')))->toBe($day->format('j F Y'));
    }
    expect(Words::day('2027-12-31'))->toBe('31 December 2027');
});
