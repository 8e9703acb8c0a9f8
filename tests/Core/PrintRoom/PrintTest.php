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
use Vantrel\Core\Records\Badge;
use Vantrel\Core\Records\Entity;
use Vantrel\Core\Records\Record;
use Vantrel\Core\Records\SignIn;

it('centres the cards and keeps them on the page', function (CardLayout $layout): void {
    $sheet = $layout->sheet();
    for ($p = 0; $p < $sheet->places(); $p++) {
        [$x, $y] = $sheet->corner($p);
        expect($x)
            ->toBeGreaterThanOrEqual(5.0)
            ->and($x + $sheet->cardWidth)
            ->toBeLessThanOrEqual($sheet->pageWidth - 5.0)
            ->and($y)
            ->toBeGreaterThanOrEqual(5.0)
            ->and($y + $sheet->cardHeight)
            ->toBeLessThanOrEqual($sheet->pageHeight - 5.0);
    }
    [$left] = $sheet->corner(0);
    [$right] = $sheet->corner($sheet->columns - 1);
    expect($left)->toEqualWithDelta($sheet->pageWidth - $right - $sheet->cardWidth, 1e-9);
})->with(CardLayout::cases());

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

it('imposes so that the cut piles, laid on each other, are in order', function (int $cards, int $places): void {
    $sheets = CardOrder::CutStack->sheets($cards, $places);
    $pile = [];
    for ($p = 0; $p < $places; $p++) {
        foreach ($sheets as $sheet) {
            if ($sheet[$p] !== null) {
                $pile[] = $sheet[$p];
            }
        }
    }
    expect($pile)
        ->toBe($cards === 0 ? [] : range(0, $cards - 1))
        ->and(count($sheets))
        ->toBe((int) ceil($cards / $places));
})->with([[0, 10], [1, 10], [9, 10], [10, 10], [11, 10], [22, 10], [99, 10], [480, 10], [7, 3]]);

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
