<?php

declare(strict_types=1);

use Vantrel\Core\Codes\Alphabet;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\CodeMistake;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\MalformedCode;

function mistakeIn(string $typed): ?CodeMistake
{
    try {
        CodeSymbols::parse($typed);

        return null;
    } catch (MalformedCode $e) {
        return $e->mistake;
    }
}

it('has 23 symbols, a prime number of them, and none that is read for another', function (): void {
    expect(strlen(Alphabet::SYMBOLS))
        ->toBe(Alphabet::SIZE)
        ->toBe(23)
        ->and(count(array_unique(str_split(Alphabet::SYMBOLS))))
        ->toBe(23);
    foreach (str_split('0O1IL2568UYAE') as $confusing) {
        expect(Alphabet::index($confusing))->toBeNull();
    }
    foreach (range(2, 22) as $divisor) {
        expect(23 % $divisor)->not->toBe(0);
    }
});

it('finds every single wrong symbol: every place, every symbol, every other symbol, every length', function (
    int $payload,
): void {
    $tried = 0;
    for ($place = 0; $place <= $payload; $place++) {
        foreach (str_split(Alphabet::SYMBOLS) as $right) {
            // A code that has this symbol in this place. The check symbol's place is reached by varying the payload.
            $code = null;
            if ($place < $payload) {
                $symbols = str_repeat('B', $payload);
                $symbols[$place] = $right;
                $code = CodeSymbols::fromPayload($symbols)->symbols;
            } else {
                foreach (str_split(Alphabet::SYMBOLS) as $first) {
                    $candidate = CodeSymbols::fromPayload($first . str_repeat('B', $payload - 1))->symbols;
                    $code = $candidate[$payload] === $right ? $candidate : $code;
                }
            }
            expect($code)->not->toBeNull();
            foreach (str_split(Alphabet::SYMBOLS) as $wrong) {
                if ($wrong !== $right) {
                    $typed = (string) $code;
                    $typed[$place] = $wrong;
                    expect(mistakeIn($typed))->toBe(CodeMistake::Check);
                    $tried++;
                }
            }
        }
    }
    expect($tried)->toBe(($payload + 1) * 23 * 22);
})->with([6, 7, 8, 9]);

it('finds every swap of two neighbours: every place, every pair of different symbols, every length', function (
    int $payload,
): void {
    for ($place = 0; $place < $payload; $place++) {
        foreach (str_split(Alphabet::SYMBOLS) as $a) {
            foreach (str_split(Alphabet::SYMBOLS) as $b) {
                $symbols = str_repeat('C', $payload);
                $symbols[$place] = $a;
                if ($place + 1 < $payload) {
                    $symbols[$place + 1] = $b;
                }
                $code = CodeSymbols::fromPayload($symbols)->symbols;
                [$left, $right] = [$code[$place], $code[$place + 1]];
                if ($left !== $right) {
                    $code[$place] = $right;
                    $code[$place + 1] = $left;
                    expect(mistakeIn($code))->toBe(CodeMistake::Check);
                }
            }
        }
    }
})->with([6, 7, 8, 9]);

it('reads a code in any case, with spaces, dashes of any kind and dots', function (): void {
    $code = CodeSymbols::fromPayload('KDM4X7');
    $written = $code->written();
    foreach (
        [
            $written,
            strtolower($written),
            str_replace('-', ' ', $written),
            str_replace('-', '–', $written),
            " $written ",
            str_replace('-', '. ', $written),
            implode(' ', str_split($code->symbols)),
        ]
        as $typed
    ) {
        expect(CodeSymbols::parse($typed)->symbols)->toBe($code->symbols);
    }
});

it('writes codes in groups that can be read aloud', function (): void {
    expect(CodeSymbols::fromPayload('KDM4X7')->written())
        ->toMatch('/^...-....$/')
        ->and(CodeSymbols::fromPayload('KDM4X7R')->written())
        ->toMatch('/^....-....$/')
        ->and(CodeSymbols::fromPayload('KDM4X7RT')->written())
        ->toMatch('/^...-...-...$/');
});

it('says which kind of mistake it is', function (): void {
    expect(mistakeIn(''))
        ->toBe(CodeMistake::Empty)
        ->and(mistakeIn(' - '))
        ->toBe(CodeMistake::Empty)
        ->and(mistakeIn('KDM'))
        ->toBe(CodeMistake::TooShort)
        ->and(mistakeIn('KDM4X7RKDMR'))
        ->toBe(CodeMistake::TooLong)
        ->and(mistakeIn('KDM4X0R'))
        ->toBe(CodeMistake::ForeignSymbol)
        ->and(mistakeIn("KDM4X\u{0430}R"))
        ->toBe(CodeMistake::ForeignSymbol)
        ->and((new MalformedCode(CodeMistake::ForeignSymbol, '0'))->getMessage())
        ->toContain('“0”');
});

it('never reads bytes that are no text as a code', function (): void {
    expect(mistakeIn("\xFF\xFE\x00"))->not->toBeNull();
});

it('refuses a payload of the wrong length or with foreign symbols', function (string $payload): void {
    CodeSymbols::fromPayload($payload);
})
    ->with(['KDM4X', 'KDM4X7RTBC', 'KDM4X0'])
    ->throws(InvalidArgumentException::class);

it('never gives a code twice, nor one that was used before', function (): void {
    $random = new KeyedStream(str_repeat('k', 32), 'codes');
    $first = CodeSymbols::draw(new KeyedStream(str_repeat('k', 32), 'codes'), 6);
    $book = new CodeBook($random, [$first->symbols => true], 0, 100);
    $seen = [];
    for ($i = 0; $i < 500; $i++) {
        $seen[$book->draw()->symbols] = true;
    }
    expect(count($seen))->toBe(500)->and($seen)->not->toHaveKey($first->symbols);
});

it('makes longer codes once there are many', function (): void {
    $book = fn(int $live): int => strlen(
        (new CodeBook(new KeyedStream(str_repeat('k', 32), 'x'), [], $live, 100))->draw()->symbols,
    );
    expect($book(147))->toBe(7)->and($book(148))->toBe(8)->and($book(3_403))->toBe(8)->and($book(3_404))->toBe(9);
});

it('is written with its dashes where the field for typing puts them', function (int $payload): void {
    preg_match(
        '/GROUPS[^{]*\{([^}]*)\}/',
        (string) file_get_contents(__DIR__ . '/../../../resources/js/areas/access/codeText.ts'),
        $groups,
    );
    preg_match_all('/(\d+): \[([\d, ]+)\]/', $groups[1] ?? '', $of);
    $typed = array_combine($of[1], $of[2]);
    $written = CodeSymbols::fromPayload(str_repeat('K', $payload))->written();
    expect($typed[$payload + 1])->toBe(implode(', ', array_map(strlen(...), explode('-', $written))));
})->with([6, 7, 8, 9]);
