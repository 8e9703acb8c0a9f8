<?php

declare(strict_types=1);

// mutates: Codes

use Vantrel\Core\Codes\Alphabet;
use Vantrel\Core\Codes\ChosenCode;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Door\CodeTerms;
use Vantrel\Core\Door\JoinCodes;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Occasion;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\CodeUse;
use Vantrel\Core\Records\Enrollment;

$ids = new Ids('01K3CNQ0000000000000000000');
$token = Token::draw(new KeyedStream(str_repeat('k', 32), 'token'));

it('lets in only between start and end, and only up to the cap', function (
    array $terms,
    int $cameIn,
    ?string $why,
) use ($ids): void {
    $come = fn() => JoinCodes::enter(
        heron(),
        doorCode($terms),
        child(),
        [],
        $cameIn,
        new Occasion($ids, '2026-09-01', AT),
    );
    $why === null
        ? expect($come()->changes[0]->after['join_code_id'])->toBe('c1')
        : expect($come)->toThrow(Refusal::class, $why);
})->with([
    'begins this second' => [['starts_at' => AT], 0, null],
    'begins in a second' => [['starts_at' => '2026-09-01 10:00:01'], 0, 'not work yet'],
    'ends in a second' => [['ends_at' => '2026-09-01 10:00:01'], 0, null],
    'ends this second' => [['ends_at' => AT], 0, 'has ended'],
    'one place left' => [['cap' => 30], 29, null],
    'no place left' => [['cap' => 30], 30, 'All places'],
]);

it('tells one who is in already so, even where the code is full', function () use ($ids): void {
    $in = new Enrollment('e', 1, ['section_id' => 'sec', 'ends_on' => null]);
    expect(
        JoinCodes::enter(
            heron(),
            doorCode(['cap' => 1]),
            child(),
            [$in],
            1,
            new Occasion($ids, '2026-09-01', AT),
        )->isEmpty(),
    )->toBeTrue();
});

it('refuses terms that make no sense', function (): void {
    expect(fn() => new CodeTerms(CodeUse::Approval, '2026-09-02 00:00:00', '2026-09-01 00:00:00'))
        ->toThrow(Refusal::class)
        ->and(fn() => new CodeTerms(cap: 0))
        ->toThrow(Refusal::class)
        ->and(fn() => JoinCodes::change(heron(), doorCode(), new CodeTerms(endsAt: AT), AT))
        ->toThrow(Refusal::class, 'passed already')
        ->and(fn() => JoinCodes::change(heron(), doorCode(['state' => 'closed']), new CodeTerms(), AT))
        ->toThrow(Refusal::class, 'closed');
    expect(
        JoinCodes::change(heron(), doorCode(), new CodeTerms(CodeUse::Accounts, cap: 30), AT)->changes[0]->after,
    )->toBe(['who' => 'accounts', 'cap' => 30]);
});

it('takes a chosen code only where a guesser would not try it first', function (string $wish, ?string $rule): void {
    $judged = ChosenCode::judge(
        $wish,
        6,
        [CodeSymbols::fromPayload('TTRWXK')->symbols => true],
        ['3 Heron', 'Lanternfield Primary'],
        ['rude', 'grbst'],
    );
    $rule === null
        ? expect($judged->safe())
            ->toBeTrue()
            ->and(CodeSymbols::parse((string) $judged->code?->written()))
            ->toEqual($judged->code)
        : expect(implode(' ', broken($judged)))->toContain($rule);
})->with([
    ['KWM-9TX', null],
    ['kwm9tx', null],
    ['KWM9T', 'Exactly 6'],
    ['KWM9TXX', 'Exactly 6'],
    ['KWM9TO', 'cannot be misread'],
    ['KKKKKK', 'four different'],
    ['KMKMKM', 'four different'],
    ['BCDFKM', 'No run'],
    ['KGFDCB', 'No run'],
    ['DFGHKM', 'No run'],
    ['NTRNXK', 'taken from the name'],
    ['GRBSTK', 'rude'],
    ['TTRWXK', 'Never used'],
    ['', 'Exactly 6'],
]);

it('judges any wish at all without falling over', function (): void {
    $random = new KeyedStream(str_repeat('k', 32), 'wishes');
    for ($i = 0; $i < 400; $i++) {
        $wish = '';
        for ($n = $random->below(12); $n > 0; $n--) {
            $wish .=
                $random->below(5) === 0
                    ? mb_chr(32 + $random->below(5000))
                    : Alphabet::symbol($random->below(Alphabet::SIZE));
        }
        $judged = ChosenCode::judge((string) $wish, 7, [], ['3 Heron'], ['rude']);
        expect($judged->rules)
            ->toHaveCount(7)
            ->and($judged->safe())
            ->toBe($judged->code !== null && broken($judged) === []);
    }
});
