<?php

declare(strict_types=1);

use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\LetterIssue;
use Vantrel\Core\Records\FamilyLetter;

it('gives each letter a code and a slip of its own, none of which was there before', function (): void {
    $languages = [];
    foreach (range(1, 400) as $i) {
        $languages["student $i"] = $i % 2 === 0 ? 'es' : 'en';
    }
    $issue = fn(array $slips): LetterIssue => LetterIssue::for(
        $languages,
        'Grade 3',
        $slips,
        new KeyedStream('a key of sixteen bytes', 'seed'),
        fn(CodeSymbols $code): string => hash('sha256', $code->symbols),
        [],
        null,
        new Ids('01J00000000000000000000000'),
        '2026-08-24 09:00:00',
    );
    $first = $issue([]);
    $codes = array_map(fn($l): string => $l->code->symbols, $first->letters);
    $slips = array_map(fn($l): string => $l->slip->symbols, $first->letters);
    expect(array_unique($codes))
        ->toHaveCount(400)
        ->and(array_unique(array_map(strlen(...), $codes)))
        ->toBe([10])
        ->and(array_unique($slips))
        ->toHaveCount(400)
        ->and($first->plan->title)
        ->toBe('400 family letters, Grade 3')
        ->and($first->plan->changes[1]->after['language'])
        ->toBe('es')
        ->and(json_encode(array_map(fn($c): array => $c->after, $first->plan->changes)))
        ->not->toContain($codes[0]);
    // The same draw again, with those slips given out: not one of them twice.
    $second = $issue(array_fill_keys($slips, true));
    expect(array_intersect($slips, array_map(fn($l): string => $l->slip->symbols, $second->letters)))->toBe([]);
});

it('ticks a slip off once', function (): void {
    $letter = new FamilyLetter('l', 1, [
        'student_id' => 's',
        'state' => 'live',
        'slip' => 'KDM4X7R',
        'returned_at' => null,
    ]);
    $plan = LetterIssue::returned($letter, 'Noor Haddad', '2026-08-25 08:00:00');
    expect($plan->sentence)->toBe('The slip of Noor Haddad has come back signed.');
    expect(
        fn() => LetterIssue::returned($letter->with(['returned_at' => '2026-08-25 08:00:00']), 'Noor Haddad', 'now'),
    )->toThrow(Refusal::class, 'ticked off already');
});
