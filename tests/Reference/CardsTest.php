<?php

declare(strict_types=1);

use App\Models\School;
use App\PrintRoom\CardJob;
use App\PrintRoom\CardPrinter;
use App\PrintRoom\Whom;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\RateLimiter;
use Tests\Support\World;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\PrintRoom\CardLayout;
use Vantrel\Core\PrintRoom\CardOrder;
use Vantrel\Core\PrintRoom\CardSheet;
use Vantrel\Core\PrintRoom\OwnSheet;
use Vantrel\Core\PrintRoom\Paper;

beforeEach(function (): void {
    $this->world = World::make();
    foreach (
        [
            'Noor Haddad',
            'Mateusz Żuławski',
            'Saoirse O’Dwyer',
            'Bartholomew-Maximilian Featherstonehaugh Cholmondeley',
            'Kai Wu',
        ]
        as $name
    ) {
        $this->world->student($name, $this->world->section);
    }
    // As they are given out: at most thirty letters.
    DB::table('sign_ins')
        ->where('user_name', 'like', 'bartholomew%')
        ->update(['user_name' => 'bartholomew.cholmondeley']);
    $this->folder = scratch();
    $this->print = function (CardLayout $layout, CardOrder $order = CardOrder::Reading, array $people = []): string {
        $pdf = app(CardPrinter::class)->print(
            School::query()->findOrFail($this->world->school),
            new CardJob(new Whom([$this->world->section], $people), Paper::of($layout, $order), shorten: true),
            $this->world->as('lead'),
        );
        file_put_contents("$this->folder/cards.pdf", $pdf);

        return "$this->folder/cards.pdf";
    };
});

// ISO 216: A4 is 210 x 297 mm. ANSI/ASME Y14.1: Letter is 8.5 x 11 in. pdfinfo (poppler) gives points of 1/72 in.
it('prints on paper of the size it says, by pdfinfo', function (CardLayout $layout, float $width, float $height): void {
    preg_match('/Page size:\s+([\d.]+) x ([\d.]+) pts/', outside(['pdfinfo', ($this->print)($layout)]), $m);
    expect((float) $m[1])
        ->toEqualWithDelta(($width / 25.4) * 72, 0.1)
        ->and((float) $m[2])
        ->toEqualWithDelta(($height / 25.4) * 72, 0.1);
})->with([
    [CardLayout::A4, 210.0, 297.0],
    [CardLayout::Letter, 215.9, 279.4],
    [CardLayout::StripA4, 297.0, 210.0],
    [CardLayout::LabelsLetterx30, 215.9, 279.4],
]);

it('prints a QR that zbarimg reads from the page pdftoppm renders, and its address signs in', function (): void {
    outside(['pdftoppm', '-r', '150', '-gray', ($this->print)(CardLayout::A4), "$this->folder/page"]);
    // Card by card: zbarimg may pass over one of many squares in one picture (5 of 800 cards, ten to a page; none of
    // them cut apart).
    [$cards] = cardsOf(glob("$this->folder/page*.pgm") ?: [], CardLayout::A4->sheet(), 6, $this->folder);
    preg_match_all('#^QR-Code:(\S+)/b\#(\S+)$#m', outside(['zbarimg', '-q', ...$cards]), $codes);
    expect($codes[2])
        ->toHaveCount(6)
        ->and(array_unique($codes[1]))
        ->toBe([rtrim((string) config('app.url'), '/')]);
    $people = [];
    foreach ($codes[2] as $token) {
        RateLimiter::clear('guest');
        $this->app['auth']->forgetGuards();
        $this->get("/b/$token")->assertRedirect('/');
        $people[] = auth()->id();
        auth()->logout();
    }
    expect(array_unique($people))->toHaveCount(6);
});

it('prints the passphrase that signs in, with the user name, by pdftotext', function (): void {
    $text = outside(['pdftotext', '-layout', ($this->print)(CardLayout::A4), '-']);
    expect($text)
        ->toContain('Mateusz Żuławski')
        ->toContain('3 Heron')
        ->toContain('noor.haddad')
        ->toContain('Lanternfield Primary');
    $raw = outside(['pdftotext', '-raw', "$this->folder/cards.pdf", '-']);
    preg_match('/noor\.haddad\s+Passphrase\s+([a-z]+ [a-z]+ [a-z]+)/', $raw, $m);
    $this->postJson('/api/sign-in', ['user_name' => 'Noor.Haddad', 'secret' => strtoupper($m[1])])
        ->assertOk()
        ->assertJsonPath('me.name', 'Noor Haddad');
});

it('embeds its fonts as subsets, and no core font', function (): void {
    $fonts = outside(['pdffonts', ($this->print)(CardLayout::A4)]);
    expect($fonts)->toContain('AtkinsonHyperlegibleNext')->toContain('SourceSerif4')->not->toContain('Helvetica');
    foreach (array_slice(explode("\n", trim($fonts)), 2) as $line) {
        expect($line)->toMatch('/yes\s+yes\s+yes\s+\d+\s+\d+$/');
    }
});

it('sets every card inside its box and no text under 8 points, by the coordinates in the PDF', function (): void {
    preg_match_all(
        '/<word xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]*)</',
        outside(['pdftotext', '-bbox', ($this->print)(CardLayout::A4), '-']),
        $words,
        PREG_SET_ORDER,
    );
    expect(count($words))->toBeGreaterThan(60);
    foreach ($words as [, $x0, $y0, $x1, $y1, $word]) {
        [$left, $top, $right, $bottom] = array_map(fn(string $p): float => ((float) $p / 72) * 25.4, [
            $x0,
            $y0,
            $x1,
            $y1,
        ]);
        // The cards of 90 x 54 mm stand 2 by 5 in the middle of the page: 15 mm from the left, 13.5 from the top.
        $column = (int) floor(($left - 15) / 90);
        $row = (int) floor(($top - 13.5) / 54);
        expect($column)
            ->toBeIn([0, 1], "$word at $left, $top mm")
            ->and($row)
            ->toBeIn([0, 1, 2, 3, 4], "$word at $left, $top mm")
            ->and($right)
            ->toBeLessThanOrEqual(15 + ($column + 1) * 90)
            ->and($bottom)
            ->toBeLessThanOrEqual(13.5 + ($row + 1) * 54)
            ->and($bottom - $top)
            ->toBeGreaterThan((8 / 72) * 25.4 * 0.9);
    }
});

it('writes no passphrase and no token anywhere but on the cards', function (): void {
    ($this->print)(CardLayout::A4);
    $raw = outside(['pdftotext', '-raw', "$this->folder/cards.pdf", '-']);
    preg_match_all('/Passphrase\s+([a-z]+ [a-z]+ [a-z]+)/', $raw, $m);
    $stored = json_encode(
        [
            DB::table('sign_ins')->get(),
            DB::table('badges')->get(),
            DB::table('ledger_changes')->get(),
            DB::table('ledger_entries')->get(),
        ],
        JSON_THROW_ON_ERROR,
    );
    expect($m[1])->toHaveCount(6);
    foreach ($m[1] as $passphrase) {
        expect($stored)->not->toContain($passphrase);
    }
});

/**
 * Each card of the pages by itself, and a photocopy of each, made by an independent library (Pillow).
 *
 * @param  list<string>  $pages pictures of them at 150 dots to the inch
 * @param  int  $count of cards on them, along the rows
 * @return array{list<string>, list<string>} pictures of the cards, and of their copies
 */
function cardsOf(array $pages, CardSheet $sheet, int $count, string $folder): array
{
    $dots = fn(float $mm): int => (int) round(($mm / 25.4) * 150);
    $boxes = [];
    for ($place = 0; $place < $sheet->places(); $place++) {
        [$x, $y] = $sheet->corner($place);
        $boxes[] = [$dots($x), $dots($y), $dots($x + $sheet->cardWidth), $dots($y + $sheet->cardHeight)];
    }
    $job = ['pages' => $pages, 'boxes' => $boxes, 'count' => $count, 'into' => $folder];
    outside(['/usr/bin/python3', __DIR__ . '/../Support/photocopies.py'], json_encode($job, JSON_THROW_ON_ERROR));

    return [glob("$folder/card-*.pgm") ?: [], glob("$folder/copy-*.pgm") ?: []];
}

it('prints squares that are read from the page and from a photocopy of it, in every layout', function (): void {
    $people = [];
    for ($i = 0; $i < 50; $i++) {
        $people[] = $this->world->student("Child$i Marsh", $this->world->section);
    }
    $read = function (array $pictures): int {
        preg_match_all(
            '#/b\#(\S+)$#m',
            outside(['zbarimg', '-q', '--nodbus', '--set', '*.enable=0', '--set', 'qr.enable=1', ...$pictures]),
            $codes,
        );

        return count(array_unique($codes[1]));
    };
    foreach (CardLayout::cases() as $layout) {
        if ($layout === CardLayout::Own) {
            continue;
        }
        // The smallest squares are the hardest to read; of the others a dozen stand for all, and all of them where
        // there is time (VANTREL_CARDS=all).
        $hard = in_array($layout, [CardLayout::LabelsLetterx30, CardLayout::StripA4], true);
        $count = $hard || getenv('VANTREL_CARDS') === 'all' ? 50 : 12;
        $folder = scratch();
        $pdf = ($this->print)($layout, people: array_slice($people, 0, $count));
        outside(['pdftoppm', '-r', '150', '-gray', $pdf, "$folder/page"]);
        [$cards, $copies] = cardsOf(glob("$folder/page*.pgm") ?: [], $layout->sheet(), $count, $folder);
        expect([$read($cards), $read($copies)])->toBe([$count, $count], $layout->value);
    }
});

it('draws the places of a test page where the sheet says, to a tenth of a millimetre, and a ruler of 100 mm', function (
    Paper $paper,
): void {
    $school = School::query()->findOrFail($this->world->school);
    file_put_contents("$this->folder/test.pdf", app(CardPrinter::class)->test($school, $paper));
    // pdftocairo (poppler) says where each line goes, in points of the page from its bottom left, before it turns them
    // over and scales them to whole ones.
    outside(['pdftocairo', '-svg', "$this->folder/test.pdf", "$this->folder/test.svg"]);
    $svg = (string) file_get_contents("$this->folder/test.svg");
    preg_match_all('/<path [^>]*?\bd="(M [^"]+)" transform="matrix/', $svg, $found);
    $boxes = $lines = [];
    foreach ($found[1] as $d) {
        preg_match_all('/(-?[\d.]+) (-?[\d.]+)/', $d, $points, PREG_SET_ORDER);
        $xs = array_map(fn(array $p): float => ((float) $p[1] / 72) * 25.4, $points);
        $ys = array_map(fn(array $p): float => $paper->sheet->pageHeight - ((float) $p[2] / 72) * 25.4, $points);
        $box = [min($xs), min($ys), max($xs) - min($xs), max($ys) - min($ys)];
        count($points) > 2 ? ($boxes[] = $box) : ($lines[] = $box);
    }
    $near = fn(array $box, array $want): bool => max(
        array_map(fn(float $x, float $y): float => abs($x - $y), $box, $want),
    ) <= 0.1;
    for ($place = 0; $place < $paper->sheet->places(); $place++) {
        [$x, $y] = $paper->sheet->corner($place);
        $want = [$x, $y, $paper->sheet->cardWidth, $paper->sheet->cardHeight];
        expect(array_filter($boxes, fn(array $box): bool => $near($box, $want)))->not->toBe(
            [],
            "place $place at " . implode(', ', $want),
        );
    }
    expect(array_filter($lines, fn(array $l): bool => abs($l[2] - 100.0) <= 0.1 && $l[3] < 0.1))->toHaveCount(1);
})->with(
    fn(): array => [
        ...array_map(
            fn(CardLayout $l): array => [Paper::of($l)],
            array_values(array_filter(CardLayout::cases(), fn(CardLayout $l): bool => $l !== CardLayout::Own)),
        ),
        [new Paper((new OwnSheet('a4', 2, 4, 80.5, 61.3, 4.2, 3.1))->sheet())],
    ],
);

it('asks about what does not fit, before anything is issued, and shortens it where it may', function (): void {
    $long = $this->world->student('Bartholomew-Maximilian-Alexander Wolfeschlegelsteinhausenbergerdorff', null);
    $print = fn(bool $shorten): string => app(CardPrinter::class)->print(
        School::query()->findOrFail($this->world->school),
        new CardJob(new Whom([], [$long]), Paper::of(CardLayout::LabelsLetterx30), shorten: $shorten),
        null,
    );
    expect(fn() => $print(false))
        ->toThrow(Refusal::class, 'Wolfeschlegelsteinhausenbergerdorff')
        ->and(DB::table('badges')->count())
        ->toBe(0);
    DB::table('sign_ins')
        ->where('person_id', $long)
        ->update(['user_name' => 'bartholomew.w']);
    file_put_contents("$this->folder/short.pdf", $print(true));
    expect(outside(['pdftotext', '-raw', "$this->folder/short.pdf", '-']))
        ->toContain('bartholomew.w')
        ->not->toContain('Wolfe')
        ->not->toContain('…');
});

it('asks about a passphrase that stands already and is longer than any that is made', function (): void {
    $old = $this->world->student('Kai Marsh', null, [], 'extraordinarily unpronounceable circumlocutions');
    $print = fn(CardLayout $layout, bool $lost): string => app(CardPrinter::class)->print(
        School::query()->findOrFail($this->world->school),
        new CardJob(new Whom([], [$old]), Paper::of($layout), $lost),
        null,
    );
    expect(fn() => $print(CardLayout::LabelsLetterx30, false))->toThrow(Refusal::class, 'kai.marsh');
    file_put_contents("$this->folder/old.pdf", $print(CardLayout::A4x8, false));
    expect(outside(['pdftotext', '-raw', "$this->folder/old.pdf", '-']))->toContain('circumlocutions');
    // Where the earlier cards are lost, another one is made, which fits.
    expect($print(CardLayout::LabelsLetterx30, true))->toStartWith('%PDF');
});
