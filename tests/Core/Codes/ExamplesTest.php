<?php

declare(strict_types=1);

use Vantrel\Core\Codes\Alphabet;
use Vantrel\Core\Codes\CodeBook;
use Vantrel\Core\Codes\CodeChances;
use Vantrel\Core\Codes\CodeMistake;
use Vantrel\Core\Codes\CodeSymbols;
use Vantrel\Core\Codes\KeyedStream;
use Vantrel\Core\Codes\MalformedCode;
use Vantrel\Core\Codes\Randomness;
use Vantrel\Core\Codes\Token;

// Worked by hand, or a second time in other words.

/** Draws what it is given, one after the other, and the last one for ever. */
function drawing(int ...$values): Randomness
{
    return new class ($values) implements Randomness {
        /** @param  non-empty-list<int>  $values */
        public function __construct(private array $values) {}

        public function below(int $bound): int
        {
            return count($this->values) > 1 ? (int) array_shift($this->values) : $this->values[0];
        }

        public function bytes(int $length): string
        {
            return str_repeat(chr($this->below(256)), $length);
        }
    };
}

it('adds the check symbol that the weights give', function (string $payload, string $check): void {
    // B is 0, C is 1, D is 2 ... 9 is 22. Weights from the right: check symbol 1, the last of the payload 2, and so on.
    // All B: the sum is 0 and has to be the number of symbols. Six and one are 7, whose symbol is K.
    expect(CodeSymbols::fromPayload($payload)->symbols)->toBe($payload . $check);
})->with([
    '0 + c = 7' => ['BBBBBB', 'K'],
    '0 + c = 8' => ['BBBBBBB', 'M'],
    '0 + c = 9' => ['BBBBBBBB', 'N'],
    '0 + c = 10' => ['BBBBBBBBB', 'P'],
    '1 x 2 + c = 7' => ['BBBBBC', 'H'],
    '1 x 7 + c = 7' => ['CBBBBB', 'B'],
    '2 x 7 + c = 7 - 23 = -16, so c = -7 + 23' => ['DBBBBB', 'W'],
    '22 x (2+3+4+5+6+7) = 594 = 19 mod 23; 7 - 19 + 23 = 11' => ['999999', 'Q'],
]);

it('takes payloads of 6 to 9 symbols, and no other', function (): void {
    foreach ([5, 10] as $length) {
        expect(fn() => CodeSymbols::fromPayload(str_repeat('B', $length)))->toThrow(InvalidArgumentException::class);
    }
    expect(fn() => CodeSymbols::fromPayload('BBBBBA'))->toThrow(InvalidArgumentException::class, '“A”');
});

it('is written in groups that can be called across a room', function (string $payload, string $written): void {
    $code = CodeSymbols::fromPayload($payload);
    expect($code->written())->toBe($written)->and(CodeSymbols::parse($written)->symbols)->toBe($code->symbols);
})->with([
    ['BBBBBB', 'BBB-BBBK'],
    ['BBBBBBB', 'BBBB-BBBM'],
    ['BBBBBBBB', 'BBB-BBB-BBN'],
    ['BBBBBBBBB', 'BBB-BBBB-BBP'],
]);

it('says what is wrong by how much is there', function (string $typed, CodeMistake $mistake, string $says): void {
    try {
        CodeSymbols::parse($typed);
        $found = null;
    } catch (MalformedCode $e) {
        $found = $e;
    }
    expect($found?->mistake)->toBe($mistake)->and($found?->getMessage())->toContain($says);
})->with([
    'nothing' => [" \u{2013}_.\t", CodeMistake::Empty, 'No code'],
    'six' => ['BBBBBB', CodeMistake::TooShort, 'too short'],
    'eleven' => ['BBBBBBBBBBB', CodeMistake::TooLong, 'too long'],
    'another letter' => ['bbb-abbk', CodeMistake::ForeignSymbol, '“A”'],
    'a letter of two bytes' => ['BBBÉBBK', CodeMistake::ForeignSymbol, '“É”'],
    'seven, one wrong' => ['BBBBBBC', CodeMistake::Check, 'One letter is wrong'],
]);

it('draws symbols by their numbers, and never the same code twice', function (): void {
    expect(CodeSymbols::draw(drawing(0, 1, 2, 3, 22, 0), 6)->symbols)->toStartWith('BCDF9B');
    $book = new CodeBook(drawing(...[...array_fill(0, 18, 0), 1]), [], 0, 1);
    expect($book->draw()->symbols)->toBe('BBBBBBK')->and($book->draw()->symbols)->toBe('CCCCCCF');
    $used = new CodeBook(drawing(...[...array_fill(0, 6, 0), 1]), ['BBBBBBK' => true], 0, 1);
    expect($used->draw()->symbols)->toBe('CCCCCCF');
});

it('is as long as the chances ask, to the very code', function (): void {
    // 23^6 = 148,035,889: with 100 tries a day and 10,000 days, 148 codes are too few for it and 149 too many.
    expect((new CodeChances(148, 100))->payloadLength())
        ->toBe(6)
        ->and((new CodeChances(149, 100))->payloadLength())
        ->toBe(7)
        // 23^9 = 1,801,152,661,463.
        ->and((new CodeChances(1_801_152, 100))->payloadLength())
        ->toBe(9)
        ->and(fn() => (new CodeChances(1_801_153, 100))->payloadLength())
        ->toThrow(InvalidArgumentException::class, 'Too many live codes')
        ->and((new CodeChances(0, 1))->payloadLength())
        ->toBe(6)
        ->and(fn() => new CodeChances(-1, 1))
        ->toThrow(InvalidArgumentException::class)
        ->and(fn() => new CodeChances(0, 0))
        ->toThrow(InvalidArgumentException::class);
});

it('states chances as numbers from 0 to 1', function (): void {
    expect((new CodeChances(23, 23))->guessPerDay(4))
        ->toEqualWithDelta(1 / 529, 1e-12)
        ->and((new CodeChances(2, 3))->guessPerDay(1))
        ->toEqualWithDelta(6 / 23, 1e-12)
        ->and((new CodeChances(1_000, 1_000))->guessPerDay(1))
        ->toBe(1.0)
        // Two codes of one symbol meet in one of 23 draws; 1 - exp(-1/23) by the bound.
        ->and((new CodeChances(2, 1))->collision(1))
        ->toEqualWithDelta(1 - exp(-1 / 23), 1e-12)
        ->and((new CodeChances(1, 1))->collision(1))
        ->toEqual(0.0)
        ->and((new CodeChances(0, 1))->collision(1))
        ->toEqual(0.0);
});

it('makes its stream of HMAC-SHA-256 over label and counter, block after block', function (): void {
    // RFC 5869, 2.3 expands in the same way; here the counter has eight bytes and goes behind the label.
    $key = str_repeat("\x0b", 20);
    $blocks = '';
    for ($i = 0; $i < 4; $i++) {
        $blocks .= hash_hmac('sha256', 'Hi There' . str_repeat("\0", 7) . chr($i), $key, true);
    }
    $stream = new KeyedStream($key, 'Hi There');
    $read = '';
    foreach ([1, 31, 32, 5, 50, 0, 9] as $length) {
        $piece = $stream->bytes($length);
        expect(strlen($piece))->toBe($length);
        $read .= $piece;
    }
    expect($read)->toBe($blocks);
});

it('draws each number below a bound alike: words beyond the last whole multiple are passed over', function (): void {
    $bound = 0x60000000;
    $bytes = (new KeyedStream(str_repeat('k', 16), 'words'))->bytes(4 * 400);
    $words = array_values((array) unpack('N*', $bytes));
    // Two whole multiples of the bound fit into 32 bits; a quarter of all words lies beyond them.
    $expected = array_map(
        fn(int $w): int => $w % $bound,
        array_values(array_filter($words, fn(int $w): bool => $w < 2 * $bound)),
    );
    expect(count($expected))->toBeLessThan(340);
    $stream = new KeyedStream(str_repeat('k', 16), 'words');
    $drawn = array_map(fn(): int => $stream->below($bound), array_fill(0, 250, 0));
    expect($drawn)->toBe(array_slice($expected, 0, 250));
});

it('knows the bounds of its bounds', function (): void {
    $stream = new KeyedStream(str_repeat('k', 16), 'x');
    expect($stream->below(1))
        ->toBe(0)
        ->and($stream->below(1 << 31))
        ->toBeLessThan(1 << 31)
        ->and(fn() => $stream->below(0))
        ->toThrow(InvalidArgumentException::class)
        ->and(fn() => $stream->below((1 << 31) + 1))
        ->toThrow(InvalidArgumentException::class)
        ->and(fn() => new KeyedStream(str_repeat('k', 15), 'x'))
        ->toThrow(InvalidArgumentException::class);
});

it('writes a token as base64url of 16 bytes without filling (RFC 4648, 5), and keeps its SHA-256', function (): void {
    $token = Token::draw(drawing(0xff));
    expect($token->plain)
        ->toBe('_____________________w')
        ->and(Token::draw(drawing(0xfb))->plain)
        ->toBe('-_v7-_v7-_v7-_v7-_v7-w')
        ->and($token->hash())
        ->toBe(hash('sha256', '_____________________w'))
        // FIPS 180-4, example of SHA-256 for "abc".
        ->and(Token::hashOf('abc'))
        ->toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
});

it('has a place for each symbol and none for anything else', function (): void {
    expect(Alphabet::index('B'))
        ->toBe(0)
        ->and(Alphabet::index('9'))
        ->toBe(22)
        ->and(Alphabet::index(''))
        ->toBeNull()
        ->and(Alphabet::index('b'))
        ->toBeNull()
        ->and(Alphabet::symbol(22))
        ->toBe('9');
});
