<?php

declare(strict_types=1);

// mutates: Accounts

use Vantrel\Core\Accounts\PassphraseSheet;
use Vantrel\Core\Accounts\WordList;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Change;
use Vantrel\Core\Plan\Ids;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\CardIssue;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\CardSecrets;
use Vantrel\Core\PrintRoom\CardSheet;
use Vantrel\Core\PrintRoom\CardWish;
use Vantrel\Core\PrintRoom\IssuedCard;
use Vantrel\Core\PrintRoom\OwnSheet;
use Vantrel\Core\PrintRoom\Paper;
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\SignIn;

/** @return list<CardLayout> all but one's own */
function readyLayouts(): array
{
    return array_values(array_filter(CardLayout::cases(), fn(CardLayout $l): bool => $l !== CardLayout::Own));
}

it('centres the cards and keeps them on the page', function (CardLayout $layout): void {
    $sheet = $layout->sheet();
    // Labels reach to where the shops cut them; nothing else comes nearer to the edge than a printer prints.
    $margin = ['labels-a4-24' => 0.0, 'labels-letter-30' => 4.7][$layout->value] ?? 5.0;
    for ($p = 0; $p < $sheet->places(); $p++) {
        [$x, $y] = $sheet->corner($p);
        expect($x)
            ->toBeGreaterThanOrEqual($margin - 1e-9)
            ->and($x + $sheet->cardWidth)
            ->toBeLessThanOrEqual($sheet->pageWidth - $margin + 1e-9)
            ->and($y)
            ->toBeGreaterThanOrEqual($margin - 1e-9)
            ->and($y + $sheet->cardHeight)
            ->toBeLessThanOrEqual($sheet->pageHeight - $margin + 1e-9);
    }
    [$left] = $sheet->corner(0);
    [$right] = $sheet->corner($sheet->columns - 1);
    expect($left)
        ->toEqualWithDelta($sheet->pageWidth - $right - $sheet->cardWidth, 1e-9)
        ->and($layout->label())
        ->toContain((string) $sheet->places());
})->with(readyLayouts());

// Common practice, no source: what the wrappers of such sheets say.
it('puts labels where the shops cut them', function (CardLayout $layout, array $first, array $pitch): void {
    $sheet = $layout->sheet();
    [$x, $y] = $sheet->corner(0);
    expect([$x, $y])
        ->toEqualWithDelta($first, 0.01)
        ->and($sheet->corner(1)[0] - $x)
        ->toEqualWithDelta($pitch[0], 0.01)
        ->and($sheet->corner($sheet->columns)[1] - $y)
        ->toEqualWithDelta($pitch[1], 0.01)
        ->and($layout->isCut())
        ->toBeTrue();
})->with([
    [CardLayout::LabelsA4x21, [7.21, 15.15], [66.04, 38.1]],
    [CardLayout::LabelsA4x24, [0.0, 0.5], [70.0, 37.0]],
    [CardLayout::LabelsLetterx30, [4.7625, 12.7], [69.85, 25.4]],
]);

it('never lets two cards overlap, gaps or not', function (): void {
    $sheet = CardSheet::centred('a4', 3, 8, 60.0, 32.0, 2.5, 1.5);
    [$x0, $y0] = $sheet->corner(0);
    expect($sheet->corner(1)[0])
        ->toEqualWithDelta($x0 + 62.5, 1e-9)
        ->and($sheet->corner(3)[1])
        ->toEqualWithDelta($y0 + 33.5, 1e-9);
});

it('refuses what does not fit and says by how much', function (): void {
    expect(fn() => CardSheet::centred('a4', 3, 5, 90.0, 54.0))
        ->toThrow(Refusal::class, '70.0 mm too wide')
        ->and(fn() => CardSheet::centred('a4', 2, 6, 90.0, 54.0))
        ->toThrow(Refusal::class, 'too high')
        ->and(fn() => CardSheet::centred('a3', 1, 1, 10.0, 10.0))
        ->toThrow(Refusal::class, 'a3')
        ->and(fn() => CardSheet::centred('a4', 0, 1, 10.0, 10.0))
        ->toThrow(Refusal::class);
});

it('imposes so that the cut piles, laid on each other, are in order', function (int $places): void {
    foreach (range(0, 500) as $cards) {
        $sheets = CardOrder::CutStack->sheets($cards, $places);
        $pile = [];
        for ($p = 0; $p < $places; $p++) {
            foreach ($sheets as $sheet) {
                if ($sheet[$p] !== null) {
                    $pile[] = $sheet[$p];
                }
            }
        }
        if ($pile !== ($cards === 0 ? [] : range(0, $cards - 1)) || count($sheets) !== (int) ceil($cards / $places)) {
            $this->fail("$cards cards on sheets of $places");
        }
    }
    expect(true)->toBeTrue();
})->with(
    fn(): array => array_values(array_unique([...array_map(fn($l) => $l->sheet()->places(), readyLayouts()), 1, 3])),
);

it('begins where the used labels end, along the rows, each card once', function (): void {
    foreach (CardOrder::cases() as $order) {
        foreach ([[5, 10, 3], [30, 21, 20], [1, 10, 9], [0, 10, 4], [25, 10, 12]] as [$cards, $places, $used]) {
            $sheets = $order->sheets($cards, $places, $used);
            $gone = $used % $places;
            expect(array_slice($sheets[0] ?? [], 0, $gone))
                ->each->toBeNull()
                ->and(array_values(array_filter(array_merge(...$sheets, ...[[]]), is_int(...))))
                ->toBe($cards === 0 ? [] : range(0, $cards - 1))
                ->and(count($sheets))
                ->toBe((int) ceil(($cards + $gone) / $places));
        }
    }
});

it('takes a layout of one’s own, and says by how much it does not fit', function (OwnSheet $own, string $why): void {
    expect(fn() => CardLayout::Own->sheet($own))->toThrow(Refusal::class, $why);
})->with([
    [new OwnSheet('a4', 3, 5, 90.0, 54.0), '70.0 mm too wide'],
    [new OwnSheet('letter', 2, 6, 90.0, 54.0, margin: 0.0), '44.6 mm too high'],
    [new OwnSheet('a4', 2, 5, 44.0, 54.0), '1.0 mm are missing'],
    [new OwnSheet('a4', 2, 5, 90.0, 20.5), '4.5 mm are missing'],
    [new OwnSheet('a5', 2, 5, 90.0, 54.0), 'a5'],
]);

it('wants one’s own layout said', function (): void {
    CardLayout::Own->sheet();
})->throws(Refusal::class, 'how large');

it('puts every card on once in reading order', function (): void {
    $sheets = CardOrder::Reading->sheets(23, 10);
    expect(array_merge(...$sheets))->toBe([...range(0, 22), ...array_fill(0, 7, null)]);
});

it('mirrors the back of a sheet along its rows', function (): void {
    $sheet = CardLayout::A4->sheet();
    for ($p = 0; $p < $sheet->places(); $p++) {
        expect($sheet->behind($sheet->behind($p)))->toBe($p);
        expect($sheet->corner($sheet->behind($p))[0])->toEqualWithDelta(
            $sheet->pageWidth - $sheet->corner($p)[0] - $sheet->cardWidth,
            1e-9,
        );
    }
});

/** @param  list<Record>  $badges */
function issue(Record $signIn, array $badges = [], bool $lost = false): CardIssue
{
    $random = new KeyedStream(str_repeat('k', 32), 'cards');

    return CardIssue::for(
        new CardWish([$signIn], $lost, '3 Heron'),
        $badges,
        [],
        new CardSecrets(
            new PassphraseSheet(
                WordList::fromText((string) file_get_contents(__DIR__ . '/../../../resources/words/passphrase.txt')),
                $random,
            ),
            $random,
            fn(string $p): string => "sealed:$p",
        ),
        new Ids('01K3CNQ0000000000000000000'),
        '2026-09-01 10:00:00',
    );
}

it('gives a card a badge, and a passphrase only where there is none', function (): void {
    $fresh = issue(new SignIn('s', 1, ['user_name' => 'noor', 'passphrase' => null, 'password' => null]));
    expect($fresh->cards[0])
        ->toBeInstanceOf(IssuedCard::class)
        ->and($fresh->cards[0]->passphrase)
        ->not->toBeNull()
        ->and($fresh->plan->changes[0]->after['passphrase'])
        ->toBe("sealed:{$fresh->cards[0]->passphrase}")
        ->and($fresh->plan->changes[1]->after['token_hash'])
        ->toBe(Token::hashOf($fresh->cards[0]->badge->plain));
    expect(issue(new SignIn('s', 1, ['passphrase' => 'sealed:x', 'password' => null]))->cards[0]->passphrase)
        ->toBeNull()
        ->and(issue(new SignIn('s', 1, ['passphrase' => null, 'password' => 'own']), [], true)->cards[0]->passphrase)
        ->toBeNull();
});

it('ends lost cards and changes their passphrase', function (): void {
    $lost = issue(
        new SignIn('s', 1, ['passphrase' => 'sealed:x', 'password' => null]),
        [new Badge('b', 1, ['sign_in_id' => 's', 'state' => 'live', 'ended_at' => null])],
        true,
    );
    $badges = array_values(
        array_filter($lost->plan->changes, fn(Change $c): bool => $c->entity === Entity::Badge && !$c->inserts()),
    );
    expect($badges[0]->after['state'])->toBe('lost')->and($lost->cards[0]->passphrase)->not->toBeNull();
});

it('prints of several user names the one made first', function (): void {
    $signIn = fn(string $id, string $person): SignIn => new SignIn($id, 1, ['person_id' => $person]);
    $printed = CardIssue::printed([$signIn('a', 'noor'), $signIn('b', 'kai'), $signIn('c', 'noor')]);
    expect(array_map(fn(SignIn $s): string => $s->id, $printed))->toBe(['noor' => 'a', 'kai' => 'b']);
});

it('cuts the whole stack only where all its sheets are whole', function (): void {
    expect(Paper::of(CardLayout::A4, CardOrder::CutStack)->isStacked())
        ->toBeTrue()
        ->and(Paper::of(CardLayout::A4, CardOrder::CutStack, 3)->isStacked())
        ->toBeFalse()
        ->and(Paper::of(CardLayout::A4)->isStacked())
        ->toBeFalse()
        ->and(Paper::of(CardLayout::Own, own: new OwnSheet('a4', 2, 4, 80.0, 60.0, cut: true))->cut)
        ->toBeTrue()
        ->and(Paper::of(CardLayout::LabelsA4x21)->cut)
        ->toBeTrue()
        ->and(Paper::of(CardLayout::A4)->cut)
        ->toBeFalse();
});
